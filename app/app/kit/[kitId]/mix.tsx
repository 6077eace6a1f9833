export { MixScreen as default } from '../../../features/mix'
