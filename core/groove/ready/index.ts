export { readyPatterns } from './patterns'
export type { ReadyPattern } from './patterns'
export { readyOn, withFill } from './ready'
export type { ReadyOnKit } from './ready'
