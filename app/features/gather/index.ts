export { GatherScreen } from './GatherScreen'
export { showKin } from './list/kin'
export { SourceList } from './list/SourceList'
