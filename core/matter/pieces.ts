import type { Passage } from './passage'
import type { TimeMap } from './time-map'

const JOIN_SECONDS = 0.001
/** A piece begins so long ahead of its attack. */
const LEAD_SECONDS = 0.0003
/** An attack goes over into what is worked in so long. */
const OVER_SECONDS = 0.006
/** No more of a piece is kept than this share of it, before and after. */
const MOST_KEPT = 0.5

/**
 * A sound worked piece by piece: each begins with an attack, which sounds as it was for `keepFrames`, or until it is loudest, and then goes over into
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
  const lead = Math.round(LEAD_SECONDS * sampleRateHz)
  const pieces = piecesOf(attacks, length, map, lead)
  pieces.forEach(({ from, outFrom, isAttack }, i) => {
    const isLast = i === pieces.length - 1
    const to = isLast ? length : pieces[i + 1]!.from
    const outTo = isLast ? map.frames : pieces[i + 1]!.outFrom
    const frames = outTo - outFrom
    if (frames <= 0) return
    const sourceAt = (frame: number) => map.sourceAt(outFrom + frame) - from
    const worked = work({ channels, sampleRateHz, from, to, frames, sourceAt, told: (share) => told((outFrom + share * frames) / map.frames) }) // prettier-ignore
    if (isAttack) {
      const isSlowed = frames > to - from
      const whole = keepFrames === 0 || !isSlowed ? keepFrames : Math.max(keepFrames, riseFrames(channels, from, to, sampleRateHz))
      keepAttack(channels, worked, from, Math.min(whole, MOST_KEPT * (to - from), MOST_KEPT * frames), sampleRateHz)
    }
    if (!isLast) calmBefore(channels, worked, to, sampleRateHz)
    const fade = isLast ? 0 : Math.min(join, frames)
    worked.forEach((channel, at) => {
      for (let frame = 0; frame < fade; frame++) channel[frames - 1 - frame]! *= frame / fade
      out[at]!.set(channel, outFrom)
    })
  })
  return out
}

interface Piece {
  readonly from: number
  readonly outFrom: number
  readonly isAttack: boolean
}

/** Where pieces begin, before and after: a little ahead of each attack, which itself is where its time has it. */
function piecesOf(attacks: readonly number[], length: number, map: TimeMap, lead: number): Piece[] {
  const pieces: Piece[] = [{ from: 0, outFrom: 0, isAttack: attacks.some((attack) => attack <= lead) }]
  for (const attack of [...attacks].sort((a, b) => a - b)) {
    const [from, outFrom] = [attack - lead, Math.round(map.outAt(attack)) - lead]
    const last = pieces.at(-1)!
    if (from <= Math.max(0, last.from + lead) || attack >= length || outFrom <= last.outFrom + lead || outFrom >= map.frames) continue
    pieces.push({ from, outFrom, isAttack: true })
  }
  return pieces
}

/** So long before an attack nothing is louder than it was there, and so long it takes to be held down. */
const CALM_SECONDS = 0.02
const CALMED_SECONDS = 0.005
const LOOK_SECONDS = 0.002

/** What comes before an attack is no louder than it was: frames that look far spread a rise towards it. */
function calmBefore(channels: readonly Float32Array[], worked: Float32Array[], to: number, sampleRateHz: number): void {
  const calm = Math.round(CALM_SECONDS * sampleRateHz)
  const look = Math.round(LOOK_SECONDS * sampleRateHz)
  const loudest = (sides: readonly Float32Array[], end: number) => {
    let most = 0
    for (let at = Math.max(0, end - calm); at < end; at += look >> 1) {
      let sum = 0
      for (const side of sides) for (let i = at; i < Math.min(end, at + look); i++) sum += side[i]! ** 2
      most = Math.max(most, sum)
    }
    return most
  }
  const frames = worked[0]!.length
  const is = loudest(worked, frames)
  const was = loudest(channels, to)
  if (is <= was) return
  const gain = Math.sqrt(was / is)
  const over = Math.round(CALMED_SECONDS * sampleRateHz)
  for (const channel of worked)
    for (let i = Math.max(0, frames - calm - over); i < frames; i++)
      channel[i]! *= 1 + (gain - 1) * Math.min(1, (i - (frames - calm - over)) / over)
}

/** An attack that rises slowly is kept, where it would be slower still, to where it is loudest, and as much more as it takes to go over; so long at most. */
const MOST_RISE_SECONDS = 0.03

/** How long an attack takes until it is loudest, with what it takes to go over then. */
function riseFrames(channels: readonly Float32Array[], from: number, to: number, sampleRateHz: number): number {
  const look = Math.round(LOOK_SECONDS * sampleRateHz)
  const end = Math.min(to, from + Math.round(MOST_RISE_SECONDS * sampleRateHz))
  let [most, top] = [0, from]
  for (let at = from; at < end; at += look >> 1) {
    let sum = 0
    for (const side of channels) for (let i = at; i < Math.min(end, at + look); i++) sum += side[i]! ** 2
    if (sum > most) [most, top] = [sum, Math.min(end, at + look)]
  }
  return top - from + Math.round(OVER_SECONDS * sampleRateHz)
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
