import type { OwnSettings } from '../kit/kit'
import { noEnvelope, stretchOf } from '../kit/shape'
import type { Envelope, EnvelopePoint, Shape } from '../kit/shape'
import { parameters } from '../kit/parameters'

/**
 * What turns any noise into a drum, said in the few numbers that a hand moves: how long it sounds, how far and how fast its
 * pitch and its filter fall. Each is read from whatever envelope there is, and changed without losing the rest of it. What is given
 * to be set is whole: it says the same whether it is set over what was before a drag or over what the drag has made so far.
 */
export interface Fall {
  /** How long it takes, seconds. */
  readonly seconds: number
  /** From how far above (or, negative, below) it comes, cents. */
  readonly cents: number
}

export interface Decay {
  /** Until nothing is left, seconds. */
  readonly seconds: number
  /** How it goes there: -1 at once, 0 evenly, 1 at the end. */
  readonly bend: number
}

type ShapeOwn = Pick<OwnSettings, 'values' | 'choices' | 'envelopes'>

/** Falls are mostly over early. */
const FALL_BEND = -0.5
const LEAST_SECONDS = 0.0001
const LONGEST_SECONDS = 3600
/** What reaches less far than this is flat: nobody hears it, and no depth can be made of it by a factor. */
const FLAT_CENTS = 0.1

const isTwo = ({ points, sustain, loop }: Envelope) =>
  points.length === 2 && points[0]!.seconds === 0 && sustain === undefined && loop === undefined
const lastOf = (points: readonly EnvelopePoint[]) => points[points.length - 1]!
const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))
const within = (seconds: number) => clamp(seconds, LEAST_SECONDS, LONGEST_SECONDS)

/** How long the level envelope lasts; nothing where there is none, and a strike sounds to the end of its clip. */
export function decayOf(shape: Shape): Decay | undefined {
  const { points } = shape.envelopes.level
  if (points.length === 0) return undefined
  return { seconds: lastOf(points).seconds * stretchOf(shape, 'level'), bend: lastOf(points).bend }
}

/** Lets a strike decay in so many seconds: a plain envelope is made or changed, any other is stretched as a whole. */
export function withDecay(shape: Shape, { seconds, bend }: Decay): ShapeOwn {
  const { level } = shape.envelopes
  const { points } = level
  const isPlain = points.length === 0 || (isTwo(level) && points[0]!.value === 1 && points[1]!.value === 0)
  if (isPlain) {
    const scale = points.length === 0 ? 1 : shape.values.decayScale
    const made = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: within(seconds / scale), value: 0, bend }] } // prettier-ignore
    return { envelopes: { level: made }, values: { decayScale: scale } }
  }
  const { min, max } = parameters.decayScale
  const decayScale = clamp(seconds / Math.max(LEAST_SECONDS, lastOf(points).seconds), min, max)
  const last = points.length - 1
  return {
    values: { decayScale },
    envelopes: { level: { ...level, points: points.map((one, i) => (i === last ? { ...one, bend } : one)) } },
  }
}

/** How the pitch falls, from the first point of its envelope to the last. */
export function pitchFallOf(shape: Shape): Fall | undefined {
  const { points } = shape.envelopes.pitch
  if (points.length === 0) return undefined
  return { seconds: lastOf(points).seconds * stretchOf(shape, 'pitch'), cents: points[0]!.value - lastOf(points).value }
}

/** Lets the pitch fall; none of it takes a plain envelope away, and makes any other flat. */
export function withPitchFall(shape: Shape, fall: Fall): ShapeOwn {
  const { pitch } = shape.envelopes
  const isPlain = pitch.points.length === 0 || (isTwo(pitch) && pitch.points[1]!.value === 0)
  const seconds = within(fall.seconds / stretchOf(shape, 'pitch'))
  if (isPlain) {
    const bend = pitch.points[1]?.bend ?? FALL_BEND
    const points = [{ seconds: 0, value: fall.cents, bend: 0 }, { seconds, value: 0, bend }] // prettier-ignore
    return { envelopes: { pitch: fall.cents === 0 ? noEnvelope : { points } } }
  }
  return { envelopes: { pitch: stretched(pitch, seconds, fall.cents) } }
}

/** An envelope of other points, longer and deeper as a whole; what it ends at stays. One that is over at once or flat has no form to keep: only its ends move. */
function stretched(envelope: Envelope, seconds: number, depth: number): Envelope {
  const { points } = envelope
  const last = lastOf(points)
  if (points.length === 1) {
    const first = { seconds: 0, value: clamp(last.value + depth, -12000, 12000), bend: 0 }
    return { points: [first, { seconds, value: last.value, bend: FALL_BEND }] }
  }
  const isLong = last.seconds >= LEAST_SECONDS
  const isLast = (i: number) => i === points.length - 1
  const reach = points[0]!.value - last.value
  const moved = points.map((point, i) => ({
    ...point,
    seconds: isLong ? point.seconds * (seconds / last.seconds) : isLast(i) ? seconds : point.seconds,
    value: clamp(Math.abs(reach) >= FLAT_CENTS ? last.value + ((point.value - last.value) * depth) / reach : i === 0 ? last.value + depth : point.value, -12000, 12000),
  })) // prettier-ignore
  return { ...envelope, points: moved }
}

/** How the first filter falls to its cutoff. */
export function filterFallOf(shape: Shape): Fall | undefined {
  const { points } = shape.envelopes.filter1
  if (points.length === 0) return undefined
  return { seconds: lastOf(points).seconds * stretchOf(shape, 'filter1'), cents: shape.values.filter1EnvelopeCents }
}

/** Lets the first filter fall; one that is off becomes a low pass, since nothing would fall else. */
export function withFilterFall(shape: Shape, fall: Fall): ShapeOwn {
  const { filter1 } = shape.envelopes
  const isPlain = filter1.points.length === 0 || (isTwo(filter1) && filter1.points[0]!.value === 1 && filter1.points[1]!.value === 0)
  const seconds = within(fall.seconds / stretchOf(shape, 'filter1'))
  const bend = filter1.points[1]?.bend ?? FALL_BEND
  const points = isPlain
    ? [{ seconds: 0, value: 1, bend: 0 }, { seconds, value: 0, bend }]
    : filter1.points.map((one) => ({ ...one, seconds: (one.seconds * seconds) / Math.max(LEAST_SECONDS, lastOf(filter1.points).seconds) }))
  return {
    ...filterOn(shape),
    values: { filter1EnvelopeCents: fall.cents },
    envelopes: { filter1: isPlain && fall.cents === 0 ? noEnvelope : { ...(isPlain ? {} : filter1), points } },
  }
} // prettier-ignore

/** The kind of a filter that is moved: one that is off becomes a low pass, any other stays. */
export function filterOn({ choices: { filter1Kind } }: Shape): Pick<OwnSettings, 'choices'> {
  return { choices: { filter1Kind: filter1Kind === 'off' ? 'lowPass' : filter1Kind } }
}
