export { GatherScreen } from './GatherScreen'
export { showKin } from './kin'
