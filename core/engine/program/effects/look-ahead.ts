import type { Kit } from '../../../kit/kit'
import { PEAK_FRAMES } from '../../mix/effects/both/sizes'

const LOOK_AHEAD_SECONDS = 0.00125

/** How far a limiter of the master looks ahead, in frames, for the engine's rate in Hz: what it comes later by. */
export function lookAheadFrames(sampleRateHz: number): number {
  return PEAK_FRAMES + Math.floor(LOOK_AHEAD_SECONDS * sampleRateHz)
}

/** By how many frames what is put into the master comes later: each limiter of one range that is on. */
export function masterDelayFrames(kit: Pick<Kit, 'inserts'>, sampleRateHz: number): number {
  const ahead = kit.inserts.filter(({ kind, bypass, choices }) => kind === 'limiter' && !bypass && (choices.ranges ?? '1') === '1')
  return ahead.length * lookAheadFrames(sampleRateHz)
}
