export { golden } from './golden'
export { SCORE_RATE_HZ } from './score-rig'
export type { GoldenScore } from './score-rig'
export { goldenScores } from './scores'
