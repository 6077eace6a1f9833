import type { StrengthCurve } from './strength'

/** A strike that was found. `frame` is the first frame that belongs to it. */
export interface Onset {
  readonly frame: number
  /** 0..1, where the water line would have to stand to hide it. */
  readonly strength: number
}

/**
 * The peaks of the curve at or above the water line. Of two closer than the minimum gap the stronger stays. Computed
 * from the curve alone, so the line can be moved without looking at the recording again.
 */
export function pickPeaks(curve: StrengthCurve, waterLine: number, minGapFrames: number): { hop: number; strength: number }[] {
  const { strength, hopFrames } = curve
  const peaks: { hop: number; strength: number }[] = []
  for (let hop = 0; hop < strength.length; hop++) {
    const here = strength[hop]
    if (here >= waterLine && here > (strength[hop - 1] ?? 0) && here >= (strength[hop + 1] ?? 0)) peaks.push({ hop, strength: here })
  }
  const gapHops = minGapFrames / hopFrames
  const kept: typeof peaks = []
  const taken = new Uint8Array(strength.length)
  for (const peak of [...peaks].sort((a, b) => b.strength - a.strength)) {
    if (taken[peak.hop]) continue
    kept.push(peak)
    taken.fill(1, Math.max(0, Math.ceil(peak.hop - gapHops)), Math.floor(peak.hop + gapHops) + 1)
  }
  return kept.sort((a, b) => a.hop - b.hop)
}

/**
 * The strikes of a recording, each placed on the first frame that rises out of what was before it. `places` remembers
 * the frame of each hop for the next call on the same curve.
 */
export function findOnsets(
  mono: Float32Array,
  sampleRateHz: number,
  curve: StrengthCurve,
  waterLine: number,
  minGapSeconds: number,
  places = new Map<number, number>(),
): Onset[] {
  return pickPeaks(curve, waterLine, minGapSeconds * sampleRateHz).map(({ hop, strength }) => {
    let frame = places.get(hop)
    if (frame === undefined) places.set(hop, (frame = firstFrame(mono, sampleRateHz, hop * curve.hopFrames)))
    return { frame, strength }
  })
}

/**
 * Near a peak of the curve, the first frame of the strike: where the sound first leaves the range of the 12 ms before
 * it by half again and reaches a share of the strike's own peak, then back to where that swing began.
 */
function firstFrame(mono: Float32Array, sampleRateHz: number, near: number): number {
  const ms = sampleRateHz / 1000
  const from = Math.max(0, Math.round(near - 3 * ms))
  const to = Math.min(mono.length, Math.round(near + 10 * ms))
  const before = rangeOf(mono, Math.max(0, Math.round(from - 21 * ms)), from)
  const peak = rangeOf(mono, from, to)
  const middle = (before.high + before.low) / 2
  const reach = (before.high - before.low) / 2
  const size = Math.max(peak.high - middle, middle - peak.low)
  const threshold = Math.min(Math.max(reach * 1.5, size * 0.06), size * 0.7)
  let frame = from
  while (frame < to - 1 && Math.abs(mono[frame] - middle) < threshold) frame++
  const earliest = Math.max(0, frame - Math.round(0.7 * ms))
  const quiet = Math.max(reach * 0.5, size * 0.01)
  while (
    frame > earliest &&
    Math.abs(mono[frame - 1] - middle) > quiet &&
    Math.abs(mono[frame - 1] - middle) < Math.abs(mono[frame] - middle)
  )
    frame--
  return frame
}

function rangeOf(mono: Float32Array, from: number, to: number): { low: number; high: number } {
  let low = Infinity
  let high = -Infinity
  for (let i = from; i < to; i++) {
    if (mono[i] < low) low = mono[i]
    if (mono[i] > high) high = mono[i]
  }
  return low <= high ? { low, high } : { low: 0, high: 0 }
}
