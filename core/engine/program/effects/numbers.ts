import { effectChoices, effects } from '../../../kit/effects'
import type { Effect } from '../../../kit/effects'
import type { Insert } from '../../../kit/mix'
import { dbToGain, exp2, log2, sin } from '../../math'
import { DIFFUSER_SIZE } from '../../mix/effects/both/sizes'
import { driveCodes, resonatorCodes, reverbCodes } from '../codes'
import { fitSection } from './fit-section'
import type { BandKind, Section } from './fit-section'
import { lookAheadFrames } from './look-ahead'

/** What the engine goes by for one effect. */
export interface EffectNumbers {
  /** In the order of its kind's layout; the first `jumps` are never gone to by degrees. */
  readonly values: readonly number[]
  readonly jumps: number
  /** How long it sounds on in silence, frames. */
  readonly tailFrames: number
  /** Samples of 32 bits that it keeps. */
  readonly floats: number
  /** What of its settings its memory is laid out for: where that changes it begins anew. */
  readonly shape: string
}

/** What an effect is compiled with: the engine's rate, the tempo that beats are of, and whether it stands in the master. */
export interface EffectContext {
  readonly sampleRateHz: number
  readonly tempoBpm: number
  readonly isMaster: boolean
}

/** The settings of an insert, those that are not said at what is usual. */
export interface Settings {
  number(name: string): number
  choice(name: string): string
}

export function settingsOf({ kind, values, choices }: Pick<Insert, 'kind' | 'values' | 'choices'>): Settings {
  const rows = effects[kind] as Record<string, { usual: number }>
  const lists = effectChoices[kind] ?? {}
  return { number: (name) => values[name] ?? rows[name].usual, choice: (name) => choices[name] ?? lists[name][0] }
}

/** No tail is shorter: what comes late in a block finds the effect awake. */
const LEAST_TAIL = 256
/** Below this share nothing is heard any more: -140 dB. */
const SILENCE_LOG2 = -23.25
/** Half a second of ring is enough for what is flat; a narrow band rings longer. */
const RING_SECONDS = 0.5

const PI = 3.141592653589793

/** The tangent of half the angle of a frequency. */
function tangent(hz: number, { sampleRateHz }: EffectContext): number {
  const angle = (PI * Math.min(hz, 0.49 * sampleRateHz)) / sampleRateHz
  return sin(angle) / sin(angle + PI / 2)
}

const framesOf = (seconds: number, { sampleRateHz }: EffectContext): number => Math.floor(seconds * sampleRateHz + 0.5)

/** By which share something is neared in a frame, so that all but 1/e is done after so many seconds. */
function shareOf(seconds: number, { sampleRateHz }: EffectContext): number {
  return seconds <= 0 ? 1 : 1 - exp2(-1.4426950408889634 / (seconds * sampleRateHz))
}

function powerOfTwo(least: number): number {
  let size = 64
  while (size < least) size *= 2
  return size
}

type Make = (of: Settings, context: EffectContext) => EffectNumbers
const plain = (values: readonly number[], jumps: number, tailFrames: number): EffectNumbers => ({ values, jumps, tailFrames, floats: 0, shape: '' }) // prettier-ignore

const sections = new Map<string, Section>()

/** Fitted once for its numbers: a band that is not moved is not fitted again. */
function sectionOf(kind: BandKind, hz: number, gainDb: number, damping: number, rateHz: number): Section {
  const key = [kind, hz, gainDb, damping, rateHz].join()
  let section = sections.get(key)
  if (!section) {
    section = fitSection(kind, hz, gainDb, Math.min(2, Math.max(0.05, damping)), rateHz)
    if (sections.size > 500) sections.clear()
    sections.set(key, section)
  }
  return section
}

const equaliser: Make = (of, context) => {
  let ring = 0.02
  const values = [1, 2, 3, 4, 5, 6].flatMap((band) => {
    const kind = of.choice(`band${band}Kind`) as BandKind
    const hz = of.number(`band${band}Hz`)
    const damping = of.number(`band${band}Damping`)
    const { g, k, mix0, mix1, mix2 } = sectionOf(kind, hz, of.number(`band${band}Db`), damping, context.sampleRateHz)
    if (mix0 !== 1 || mix1 !== 0 || mix2 !== 0) ring = Math.max(ring, 10.4 / (hz * Math.min(2, k)))
    return [g, k, mix0, mix1, mix2]
  })
  return plain(values, 0, framesOf(ring, context))
}

const splits = (of: Settings, context: EffectContext) => {
  const [low, high] = [of.number('split1Hz'), of.number('split2Hz')]
  return [tangent(Math.min(low, high), context), tangent(Math.max(low, high), context)]
}

const compressor: Make = (of, context) => {
  const ranges = Number(of.choice('ranges'))
  const each = [1, 2, 3].flatMap((range) => [
    of.number(`threshold${range}Db`),
    1 - 1 / of.number(`ratio${range}`),
    shareOf(of.number(`attack${range}Seconds`), context),
    shareOf(of.number(`release${range}Seconds`), context),
    of.number(`makeUp${range}Db`),
  ])
  const longest = Math.max(...[1, 2, 3].map((range) => of.number(`release${range}Seconds`)))
  return plain(
    [ranges, of.number('kneeDb'), of.number('mix'), ...splits(of, context), ...each],
    1,
    framesOf(RING_SECONDS + 8 * longest, context),
  )
}

const gate: Make = (of, context) => {
  const rangeDb = of.number('rangeDb')
  const release = of.number('releaseSeconds')
  const values = [
    framesOf(of.number('holdSeconds'), context),
    dbToGain(of.number('thresholdDb')),
    rangeDb <= -120 ? 0 : dbToGain(rangeDb),
    1 / Math.max(1, framesOf(of.number('attackSeconds'), context)),
    dbToGain(Math.max(-120, rangeDb) / Math.max(1, framesOf(release, context))),
  ]
  return plain(values, 1, framesOf(0.1 + of.number('holdSeconds') + release, context))
}

const limiter: Make = (of, context) => {
  const ranges = Number(of.choice('ranges'))
  const ahead = context.isMaster && ranges === 1 ? lookAheadFrames(context.sampleRateHz) : 0
  const release = of.number('releaseSeconds')
  const ceilings = [1, 2, 3].map((range) => dbToGain(of.number(`ceiling${range}Db`)))
  const tailFrames = framesOf(RING_SECONDS + 17 * release, context) + ahead
  const values = [ranges, ahead, ...splits(of, context), shareOf(release, context), ...ceilings]
  return { values, jumps: 2, tailFrames, floats: ahead === 0 ? 0 : 4 * powerOfTwo(ahead + 8), shape: String(ahead) }
}

const drive: Make = (of) => plain([driveCodes[of.choice('kind') as keyof typeof driveCodes], of.number('driveDb'), of.number('levelDb'), of.number('mix')], 1, 8192) // prettier-ignore
const crush: Make = (of) => plain([of.number('bits'), of.number('rateHz'), of.number('mix')], 0, 2048)
const transient: Make = (of, context) => plain([of.number('attackDb'), of.number('tailDb')], 0, framesOf(1, context))

const width: Make = (of, context) => {
  const below = of.number('monoBelowHz')
  return plain([of.number('width'), below <= 1 ? 0 : tangent(below, context)], 0, below <= 1 ? LEAST_TAIL : framesOf(12 / below, context))
}

const echo: Make = (of, context) => {
  const seconds = of.choice('time') === 'beats' ? (of.number('beats') * 60) / context.tempoBpm : of.number('seconds')
  const frames = Math.max(1, framesOf(seconds, context))
  const feedback = of.number('feedback')
  const capacity = powerOfTwo(frames + 1)
  const times = feedback < 1e-6 ? 1 : 1 + Math.ceil(SILENCE_LOG2 / log2(feedback))
  const filters = [tangent(of.number('lowPassHz'), context), tangent(of.number('highPassHz'), context)]
  const values = [frames, capacity, feedback, ...filters, of.number('toAndFro'), of.number('mix')]
  return { values, jumps: 2, tailFrames: frames * times + framesOf(RING_SECONDS, context), floats: 2 * capacity, shape: String(capacity) }
}

/** The longest line of a reverb of size 1, seconds; see mix/effects/both/reverb.ts. */
const LONGEST_LINE = { room: 0.0353, hall: 0.0617, plate: 0.0297 }
/** Its farthest early tap. */
const LAST_TAP_SECONDS = 0.31

const reverb: Make = (of, context) => {
  const kind = of.choice('kind') as keyof typeof reverbCodes
  const size = of.number('size')
  const before = framesOf(of.number('beforeSeconds'), context)
  const capacity = powerOfTwo(framesOf(size * LONGEST_LINE[kind], context) + 400)
  const beforeCapacity = powerOfTwo(before + framesOf(LAST_TAP_SECONDS, context) + 64)
  const [decay, low, high] = [of.number('decaySeconds'), of.number('decayLow'), of.number('decayHigh')]
  const longest = decay * Math.max(1, low, high)
  const values = [
    reverbCodes[kind],
    size,
    before,
    capacity,
    beforeCapacity,
    decay,
    low,
    high,
    of.number('early'),
    of.number('density'),
    of.number('mix'),
  ]
  return {
    values,
    jumps: 5,
    tailFrames: before + framesOf(0.5 + (longest * 140) / 60, context),
    floats: 2 * beforeCapacity + 8 * DIFFUSER_SIZE + 16 * capacity,
    shape: [kind, size, before].join(),
  }
}

/** Chords of a resonator: what each string is against the first. */
export const chords: Readonly<Record<string, readonly number[]>> = {
  one: [],
  octaves: [2, 4],
  fifths: [1.5, 2, 3],
  major: [1.25992104989487, 1.4983070768766815, 2],
  minor: [1.189207115002721, 1.4983070768766815, 2],
}

const LOWEST_HZ = 10

const resonator: Make = (of, context) => {
  const ratios = chords[of.choice('chord')]
  const capacity = powerOfTwo(context.sampleRateHz / LOWEST_HZ + 8)
  const kind = resonatorCodes[of.choice('kind') as keyof typeof resonatorCodes]
  const values = [kind, 1 + ratios.length, capacity, ...[0, 1, 2].map((i) => ratios[i] ?? 1), of.number('hz'), of.number('decaySeconds'), of.number('position'), of.number('damping'), of.number('mix')] // prettier-ignore
  const tailFrames = framesOf(0.3 + (of.number('decaySeconds') * 140) / 60, context)
  return { values, jumps: 6, tailFrames, floats: 10 * capacity, shape: '' }
}

const makers: Readonly<Record<Exclude<Effect, 'room'>, Make>> = { equaliser, compressor, gate, limiter, drive, crush, transient, width, echo, reverb, resonator } // prettier-ignore

/** The numbers of an effect; those of a room are of its impulse too, see room-impulse.ts. */
export function effectNumbers(
  insert: Pick<Insert, 'values' | 'choices'> & { readonly kind: Exclude<Effect, 'room'> },
  context: EffectContext,
): EffectNumbers {
  const numbers = makers[insert.kind](settingsOf(insert), context)
  return { ...numbers, tailFrames: Math.max(LEAST_TAIL, numbers.tailFrames) }
}
