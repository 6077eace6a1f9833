export * from './amounts'
export * from './places'
export { stretchesOf } from '../kit/slices'
