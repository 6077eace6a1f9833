import type { Passage } from './passage'
import type { TimeMap } from './time-map'

const JOIN_SECONDS = 0.001
/** An attack goes over into what is worked in so long. */
const OVER_SECONDS = 0.006
/** No more of a piece is kept than this share of it, before and after. */
const MOST_KEPT = 0.5

/**
 * A sound worked piece by piece: each begins with an attack, which sounds as it was for `keepFrames` and then goes over into
 * what `work` makes of the piece. No piece sees another, so that nothing is heard of an attack before it and none sounds twice.
 */
export function workPieces(
  channels: readonly Float32Array[],
  sampleRateHz: number,
  attacks: readonly number[],
  map: TimeMap,
  keepFrames: number,
  work: (passage: Passage) => Float32Array[],
  told: (share: number) => void = () => undefined,
): Float32Array[] {
  const length = channels[0]!.length
  const out = channels.map(() => new Float32Array(map.frames))
  const join = Math.round(JOIN_SECONDS * sampleRateHz)
  const begins = [...new Set([0, ...attacks])].filter((frame) => frame < length && map.outAt(frame) < map.frames).sort((a, b) => a - b)
  begins.forEach((from, i) => {
    const isLast = i === begins.length - 1
    const to = isLast ? length : begins[i + 1]!
    const outFrom = from === 0 ? 0 : Math.round(map.outAt(from))
    const outTo = isLast ? map.frames : Math.round(map.outAt(to))
    const frames = outTo - outFrom
    if (frames <= 0) return
    const sourceAt = (frame: number) => map.sourceAt(outFrom + frame) - from
    const isAttack = attacks.includes(from)
    const worked = work({ channels, sampleRateHz, from, to, frames, sourceAt, told: (share) => told((outFrom + share * frames) / map.frames) }) // prettier-ignore
    if (isAttack) keepAttack(channels, worked, from, Math.min(keepFrames, MOST_KEPT * (to - from), MOST_KEPT * frames), sampleRateHz)
    const fade = isLast ? 0 : Math.min(join, frames)
    worked.forEach((channel, at) => {
      for (let frame = 0; frame < fade; frame++) channel[frames - 1 - frame]! *= frame / fade
      out[at]!.set(channel, outFrom)
    })
  })
  return out
}

/** Lays an attack as it was over what was made of it. */
function keepAttack(channels: readonly Float32Array[], worked: Float32Array[], from: number, kept: number, sampleRateHz: number): void {
  const keep = Math.floor(kept)
  const over = Math.min(keep, Math.round(OVER_SECONDS * sampleRateHz))
  worked.forEach((channel, i) => {
    const source = channels[i]!
    for (let frame = 0; frame < keep; frame++) {
      const share = frame < keep - over ? 0 : (frame - keep + over) / over
      channel[frame] = source[from + frame]! * (1 - share) + channel[frame]! * share
    }
  })
}
