export { MixScreen } from './MixScreen'
