export { modelStrike } from './model'
export type { ModelledStrike } from './voice'
