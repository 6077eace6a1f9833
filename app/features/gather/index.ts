export { GatherScreen } from './GatherScreen'
export { showKin } from './list/kin'
export { listSoon, SourceList } from './list/SourceListLater'
