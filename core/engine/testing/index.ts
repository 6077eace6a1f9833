export { golden } from './golden'
export { goldenScores, SCORE_RATE_HZ } from './scores'
export type { GoldenScore } from './scores'
