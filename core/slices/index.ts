export * from './amounts'
export * from './find'
export { busesOfSlices, isSet, stretchesOf } from '../kit/slices'
export type { SliceStretch } from '../kit/slices'
