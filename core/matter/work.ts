import { frameCount, peakOfAudio } from '../audio'
import type { Audio } from '../audio'
import { matterFault, matterValue } from '../kit/matter-values'
import type { MatterStep } from '../kit/matter-values'
import { findAttacks } from './attacks'
import { grainsOf } from './grains'
import { noiseAnew } from './noise-anew'
import { partSound } from './parting'
import { workPieces } from './pieces'
import { createDraws } from './random'
import { resample } from './resample'
import { moveResonances } from './resonances'
import { stretch } from './stretch'
import { planStep } from './plan'
import type { StepPlan } from './plan'

/** No sound longer than this is worked, and none is made longer, s. */
export const MOST_SECONDS = 120
/** Fewer frames than this have no matter to speak of. */
export const LEAST_FRAMES = 16

export interface Matter {
  /** The sound, the stretch that is worked. */
  readonly audio: Audio
  /** Which frame of its file is the first of `audio`. */
  readonly startFrame: number
  readonly steps: readonly MatterStep[]
  /** Beats a minute, for lengths in beats. */
  readonly tempoBpm: number
  /** Frames of the file that are attacks whatever is found: slices. */
  readonly strikes?: readonly number[]
  /** Semitones above the note at which it sounds as it is. */
  readonly semitones?: number
}

export type MatterResult = { readonly ok: true; readonly audio: Audio } | { readonly ok: false; readonly message: string }

/** What cannot be worked, and what to do; undefined where it can. `seconds` is how long the result would be. */
export function refuseMatter({ audio, steps }: Pick<Matter, 'audio' | 'steps'>, seconds: number): string | undefined {
  const frames = frameCount(audio)
  const fault = steps.map(matterFault).find((found) => found !== undefined)
  if (fault) return `This cannot be worked: ${fault}.`
  if (frames < LEAST_FRAMES)
    return `This is ${frames} frames long; matter needs ${LEAST_FRAMES} frames at least. Take more of the recording.`
  if (frames / audio.sampleRateHz > MOST_SECONDS || seconds > MOST_SECONDS) {
    const long = Math.max(frames / audio.sampleRateHz, seconds)
    return `This would be ${Math.round(long)} s long; matter works up to ${MOST_SECONDS} s. Cut the hit out of the recording first, or take less length.`
  }
  if (audio.channels.some((channel) => channel.some((sample) => !Number.isFinite(sample))))
    return 'This recording holds samples that are not numbers. Export it again.'
  if (peakOfAudio(audio) === 0) return 'This is silent: there is no matter in it to work. Take another part of the recording.'
  return undefined
}

/**
 * A sound as its steps leave it, one after another. `told` hears how far it is, 0..1, and may throw to stop. The same settings
 * give the same sound; nothing louder than twice the source's peak comes out of it.
 */
export function workMatter(matter: Matter, told: (share: number) => void = () => undefined): MatterResult {
  const steps = matter.steps.filter(({ bypass }) => !bypass)
  const { sampleRateHz } = matter.audio
  const plans: StepPlan[] = []
  let frames = frameCount(matter.audio)
  let places = (frame: number) => frame - matter.startFrame
  for (const step of steps) {
    const plan = planStep(step, frames, sampleRateHz, places, matter)
    plans.push(plan)
    const before = places
    places = (frame) => plan.outAt(before(frame))
    frames = plan.frames
  }
  const longest = Math.max(0, ...plans.map((plan) => plan.frames)) / sampleRateHz
  const refusal = refuseMatter(matter, longest)
  if (refusal) return { ok: false, message: refusal }
  let channels: Float32Array[] = matter.audio.channels.map((channel) => channel.slice())
  let strikes = (matter.strikes ?? []).map((frame) => frame - matter.startFrame)
  for (const [i, plan] of plans.entries()) {
    told(i / plans.length)
    channels = workStep(channels, sampleRateHz, steps[i]!, plan, strikes)
    strikes = strikes.map(plan.outAt)
  }
  told(1)
  return { ok: true, audio: { sampleRateHz, channels } }
}

/** One step, on its part of the sound: what is before and behind it stays and goes over into it in a few ms. */
function workStep(channels: Float32Array[], rateHz: number, step: MatterStep, plan: StepPlan, strikes: readonly number[]): Float32Array[] {
  const { from, to, partFrames } = plan
  const part = channels.map((channel) => channel.slice(from, to))
  const worked = workPart(
    part,
    rateHz,
    step,
    plan,
    strikes.map((frame) => frame - from).filter((frame) => frame >= 0 && frame < to - from),
  )
  const isWhole = from === 0 && to === channels[0]!.length
  if (isWhole) return worked
  const over = Math.min(Math.round(PART_OVER_SECONDS * rateHz), partFrames >> 1, (to - from) >> 1)
  return channels.map((channel, i) => {
    const out = new Float32Array(plan.frames)
    out.set(channel.subarray(0, from))
    out.set(worked[i]!, from)
    out.set(channel.subarray(to), from + partFrames)
    for (let k = 0; k < over; k++) {
      const share = (k + 0.5) / over
      out[from + k] = worked[i]![k]! * share + channel[from + k]! * (1 - share)
      out[from + partFrames - 1 - k] = worked[i]![partFrames - 1 - k]! * share + channel[to - 1 - k]! * (1 - share)
    }
    return out
  })
}

const PART_OVER_SECONDS = 0.005

function workPart(part: Float32Array[], rateHz: number, step: MatterStep, plan: StepPlan, strikes: readonly number[]): Float32Array[] {
  switch (step.kind) {
    case 'time':
      return workTime(part, rateHz, step as MatterStep & { kind: 'time' }, plan, strikes)
    case 'grains': {
      const own = step as MatterStep & { kind: 'grains' }
      const value = (name: Parameters<typeof matterValue<'grains'>>[1]) => matterValue(own, name)
      const settings = { seconds: value('grainMs') / 1000, atOnce: value('atOnce'), straySeconds: value('strayMs') / 1000, strayCents: value('strayCents') } // prettier-ignore
      const random = createDraws(value('draw') + 1)
      const whole = {
        channels: part,
        sampleRateHz: rateHz,
        from: 0,
        to: part[0]!.length,
        frames: plan.partFrames,
        sourceAt: plan.map.sourceAt,
      }
      const keep = (value('keepMs') / 1000) * rateHz
      const first = attacksOf(part, rateHz, strikes)[0]
      // Grains reach over attacks as they like; only the strike itself is kept.
      return first === undefined || keep === 0
        ? grainsOf(whole, settings, random)
        : workPieces(part, rateHz, [first], plan.map, keep, (passage) => grainsOf(passage, settings, random))
    }
    case 'resonances':
      return moveResonances(part, rateHz, plan.resonanceRatio)
    case 'ringing':
    case 'noise': {
      const own = step as MatterStep & { kind: 'noise' }
      const settings = { divideHz: matterValue(own, 'divideHz'), steadySeconds: matterValue(own, 'steadyMs') / 1000 }
      const { ringing, noise } = partSound(part, rateHz, settings)
      return step.kind === 'ringing' ? ringing : workNoise(noise, rateHz, own, plan, strikes)
    }
  }
}

const attacksOf = (part: readonly Float32Array[], rateHz: number, strikes: readonly number[]): number[] => {
  const found = findAttacks(part, rateHz)
  if (strikes.length === 0) return found
  // What was marked wins over what was found beside it.
  const near = 0.03 * rateHz
  return [...strikes.map(Math.round), ...found.filter((frame) => strikes.every((strike) => Math.abs(strike - frame) > near))].sort(
    (a, b) => a - b,
  )
}

function workTime(
  part: Float32Array[],
  rateHz: number,
  step: MatterStep & { kind: 'time' },
  plan: StepPlan,
  strikes: readonly number[],
): Float32Array[] {
  const { rate, map } = plan
  const keep = (matterValue(step, 'keepMs') / 1000) * rateHz * rate
  const random = createDraws(1)
  const slow = workPieces(part, rateHz, attacksOf(part, rateHz, strikes), map, keep, (passage) => stretch(passage, random))
  if (rate === 1) return slow
  const pitched = slow.map((channel) => resample(channel, rate, plan.partFrames))
  return plan.resonanceRatio === 1 ? pitched : moveResonances(pitched, rateHz, plan.resonanceRatio)
}

function workNoise(
  noise: Float32Array[],
  rateHz: number,
  step: MatterStep & { kind: 'noise' },
  plan: StepPlan,
  strikes: readonly number[],
): Float32Array[] {
  const anew = matterValue(step, 'anew')
  if (anew === 0 && plan.partFrames === noise[0]!.length) return noise
  const random = createDraws(matterValue(step, 'draw') + 1)
  const keep = (matterValue(step, 'keepMs') / 1000) * rateHz
  const attacks = attacksOf(noise, rateHz, strikes)
  const fresh = workPieces(noise, rateHz, attacks, plan.map, keep, (passage) => noiseAnew(passage, random))
  if (anew === 1) return fresh
  const old = workPieces(noise, rateHz, attacks, plan.map, keep, (passage) => stretch(passage, random))
  const [a, b] = [Math.sqrt(anew), Math.sqrt(1 - anew)]
  return fresh.map((channel, i) => channel.map((sample, frame) => a * sample + b * old[i]![frame]!))
}
