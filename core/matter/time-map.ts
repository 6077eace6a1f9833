/** Where each moment of a sound goes. Frames are those of the sound's own rate. */
export interface TimeMap {
  /** Frames of the result. */
  readonly frames: number
  /** Frame of the result from which on the sound stands still. */
  readonly stillFrom?: number
  sourceAt(outFrame: number): number
  outAt(sourceFrame: number): number
}

/** How fast a sound goes by at a moment of it: seconds from its start, and its pace, % of its own. 0 stands still. */
export interface PacePoint {
  readonly seconds: number
  readonly value: number
}

/** Slower than this share of its own pace a sound stands still. */
const STILL = 0.01
/** So long a standstill is laid out: more than what goes round in it. */
export const STILL_SECONDS = 4
const STEP_SECONDS = 0.001

/** Every moment at the same pace: `outFrames` for `frames`. */
export function evenMap(frames: number, outFrames: number): TimeMap {
  const ratio = outFrames / frames
  return { frames: outFrames, sourceAt: (out) => out / ratio, outAt: (source) => source * ratio }
}

/**
 * A sound whose pace changes along it, straight from point to point, all of it `ratio` times as long as its pace says. Where the
 * pace reaches 0 it stands still for four seconds, and what is behind that is not heard.
 */
export function pacedMap(frames: number, sampleRateHz: number, points: readonly PacePoint[], ratio: number): TimeMap {
  const sorted = [...points].sort((a, b) => a.seconds - b.seconds)
  const step = Math.max(1, Math.round(STEP_SECONDS * sampleRateHz))
  const count = Math.ceil(frames / step)
  const outs = new Float64Array(count + 1)
  let last = count
  for (let i = 0; i < count; i++) {
    const pace = paceAt(sorted, ((i + 0.5) * step) / sampleRateHz) / 100 / ratio
    if (pace < STILL) {
      last = i
      break
    }
    outs[i + 1] = outs[i]! + Math.min(step, frames - i * step) / pace
  }
  const end = outs[last]!
  const isStill = last < count
  const total = Math.max(1, Math.round(end + (isStill ? STILL_SECONDS * sampleRateHz : 0)))
  const sourceEnd = Math.min(frames, last * step)
  const sourceAt = (out: number): number => {
    if (last === 0) return 0
    if (out <= 0) return (out * step) / outs[1]!
    if (out >= end) return isStill ? sourceEnd : sourceEnd + (out - end)
    let [low, high] = [0, last]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (outs[middle]! <= out) low = middle
      else high = middle
    }
    return Math.min(frames, low * step + ((out - outs[low]!) / (outs[low + 1]! - outs[low]!)) * Math.min(step, frames - low * step))
  }
  const outAt = (source: number): number => {
    const at = Math.min(last, Math.max(0, source / step))
    const low = Math.floor(at)
    return low >= last ? end : outs[low]! + (outs[low + 1]! - outs[low]!) * (at - low)
  }
  return { frames: total, sourceAt, outAt, ...(isStill ? { stillFrom: Math.round(end) } : {}) }
}

function paceAt(points: readonly PacePoint[], seconds: number): number {
  const next = points.findIndex((point) => point.seconds > seconds)
  if (next === 0) return points[0]!.value
  if (next < 0) return points.at(-1)?.value ?? 100
  const [a, b] = [points[next - 1]!, points[next]!]
  return a.value + ((b.value - a.value) * (seconds - a.seconds)) / (b.seconds - a.seconds)
}
