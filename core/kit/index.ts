export * from './ids'
export * from './parameters'
export * from './effects'
export * from './effect-starts'
export * from './responses'
export * from './mix-places'
export * from './shape'
export * from './version'
export * from './families'
export * from './kit'
export * from './make'
export * from './resolve'
export { applyEdit, kitEditSchema, withoutPad } from './kit-edit'
export type { Clearable, KitEdit } from './kit-edit'
export { difference, EditDoesNotApply, isElementEdit } from './elements'
export type { ElementEdit } from './elements'
export * from './source'
export * from './start'
export * from './performance'
export {
  applyBatch,
  editsOfNow,
  inversesOf,
  kinds,
  kitKind,
  makeChange,
  performanceKind,
  sharedWith,
  sourceKind,
  startKind,
} from './document'
export type { AnyEdit, Applied, Change, DocumentKind, Kind, Refused } from './document'
export { tidied } from './tidy'
export { readKit, readPerformance, readSource, readStart } from './upgrade'
export type { Read } from './upgrade'
export { sameData } from './list'
export * from './summary'
export * from './tillers'
export * from './wire'
export { busesOfSlices } from './slices'
