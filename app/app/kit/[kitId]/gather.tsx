export { GatherScreen as default } from '../../../features/gather'
