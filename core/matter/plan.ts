import { matterValue } from '../kit/matter-values'
import type { MatterStep } from '../kit/matter-values'
import { evenMap, pacedMap } from './time-map'
import type { PacePoint, TimeMap } from './time-map'

/** What a step does to time, known before anything is reckoned. Frames are those of the sound as the step finds it. */
export interface StepPlan {
  /** Frames of the sound behind the step. */
  readonly frames: number
  /** The part that is worked, and how long it is then. */
  readonly from: number
  readonly to: number
  readonly partFrames: number
  /** The part's time, before it is read `rate` times as fast. */
  readonly map: TimeMap
  readonly rate: number
  readonly resonanceRatio: number
  /** Where the sound stands still from, behind the step. */
  readonly stillFrom?: number
  outAt(frame: number): number
}

interface Ground {
  readonly tempoBpm: number
  readonly semitones?: number
  /** By how many octaves resonances are moved by what strikes. */
  readonly octaves?: number
}

/** What comes of a step for a sound of so many frames; `placeOf` says where a frame of the file is by now. */
export function planStep(
  step: MatterStep,
  frames: number,
  sampleRateHz: number,
  placeOf: (fileFrame: number) => number,
  { tempoBpm, semitones = 0, octaves = 0 }: Ground,
): StepPlan {
  const [from, to] = partOf(step, frames, placeOf)
  const length = to - from
  const { rate, resonanceRatio } = pitchOf(step, semitones, octaves)
  const { map, partFrames } = timeOf(step, length, sampleRateHz, tempoBpm, rate)
  const stillFrom = map.stillFrom === undefined ? {} : { stillFrom: from + Math.round(map.stillFrom / rate) }
  return {
    frames: from + partFrames + (frames - to),
    from,
    to,
    partFrames,
    map,
    rate,
    resonanceRatio,
    ...stillFrom,
    outAt: (frame) => (frame <= from ? frame : frame >= to ? frame - to + from + partFrames : from + map.outAt(frame - from) / rate),
  }
}

function partOf({ part }: MatterStep, frames: number, placeOf: (frame: number) => number): [number, number] {
  if (!part) return [0, frames]
  const from = Math.min(frames, Math.max(0, Math.round(placeOf(part.startFrame))))
  const to = Math.min(frames, Math.max(from, Math.round(placeOf(part.endFrame))))
  return to - from < 2 ? [0, frames] : [from, to]
}

function pitchOf(step: MatterStep, semitones: number, octaves: number): { rate: number; resonanceRatio: number } {
  if (step.kind === 'time') {
    const own = step as MatterStep & { kind: 'time' }
    const played = matterValue(own, 'sameLength') > 0 ? 100 * semitones : 0
    const rate = 2 ** ((matterValue(own, 'pitchCents') + played) / 1200)
    return { rate, resonanceRatio: rate ** -matterValue(own, 'keepResonances') }
  }
  if (step.kind !== 'resonances') return { rate: 1, resonanceRatio: 1 }
  const own = step as MatterStep & { kind: 'resonances' }
  const follow = 2 ** (((matterValue(own, 'followNote') - 1) * semitones) / 12)
  return { rate: 1, resonanceRatio: Math.min(8, Math.max(1 / 8, (matterValue(own, 'movePercent') / 100) * follow * 2 ** octaves)) }
}

/** Lengths stay within a tenth and ten times the part, whatever the tempo asks. */
const shareOf = (percent: number): number => Math.min(10, Math.max(0.1, percent / 100))

/** The time of a part that is read `rate` times as fast afterwards, and its frames then. */
function timeOf(
  step: MatterStep,
  length: number,
  sampleRateHz: number,
  tempoBpm: number,
  rate: number,
): { map: TimeMap; partFrames: number } {
  if (step.kind !== 'time' && step.kind !== 'grains' && step.kind !== 'noise') return { map: evenMap(length, length), partFrames: length }
  const beats = step.kind === 'time' ? matterValue(step as MatterStep & { kind: 'time' }, 'beats') : 0
  const percent = matterValue(step as MatterStep & { kind: 'time' }, 'lengthPercent')
  const ratio = beats > 0 ? shareOf((100 * ((beats * 60) / tempoBpm) * sampleRateHz) / length) : shareOf(percent)
  if (step.curve && step.curve.length > 0) {
    const map = pacedMap(length, sampleRateHz, pacesOf(step.curve), ratio * rate)
    return { map, partFrames: Math.max(1, Math.round(map.frames / rate)) }
  }
  const partFrames = Math.max(1, Math.round(length * ratio))
  return { map: evenMap(length, rate === 1 ? partFrames : Math.max(1, Math.round(length * ratio * rate))), partFrames }
}

const MOST_PACE = 1000
const pacesOf = (curve: NonNullable<MatterStep['curve']>): PacePoint[] =>
  curve.map(({ seconds, value }) => ({ seconds, value: Math.min(MOST_PACE, Math.max(0, value)) }))
