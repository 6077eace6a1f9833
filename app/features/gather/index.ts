export { GatherScreen } from './GatherScreen'
