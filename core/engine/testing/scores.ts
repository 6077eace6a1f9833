import { busyPerformance } from './busy-performance'
import { blends, pickScore, chokes, limits, modes, rays, channels, mix } from './rule-scores'
import { SCORE_RATE_HZ } from './score-rig'
import type { GoldenScore } from './score-rig'
import { plain, pitched, envelopes, filters, filterKinds, stageScore, driveScore } from './sound-scores'

function busyMinute(): GoldenScore {
  const seconds = 60
  const { kit, audio, events } = busyPerformance(seconds, SCORE_RATE_HZ)
  return { name: 'busy minute', kit, audio, events, frames: seconds * SCORE_RATE_HZ }
}

/** Short scores, each a part of the engine alone, and a minute in which everything happens at once. */
export const goldenScores: readonly (() => GoldenScore)[] = [
  plain,
  pitched,
  envelopes,
  filters,
  filterKinds,
  stageScore,
  driveScore,
  blends,
  pickScore,
  chokes,
  limits,
  modes,
  rays,
  channels,
  mix,
  busyMinute,
]
