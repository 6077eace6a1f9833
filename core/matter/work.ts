import { frameCount, peakOfAudio } from '../audio'
import type { Audio } from '../audio'
import { matterFault } from '../kit/matter-values'
import type { MatterStep } from '../kit/matter-values'
import { planStep } from './plan'
import type { StepPlan } from './plan'
import { workPart } from './step'
import type { Part } from './step'

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
  /** By how many octaves resonances are moved by what strikes. */
  readonly octaves?: number
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
    channels = workStep({ channels, rateHz: sampleRateHz, plan, strikes, told: (share) => told((i + share) / plans.length) }, steps[i]!)
    strikes = strikes.map(plan.outAt)
  }
  told(1)
  return { ok: true, audio: { sampleRateHz, channels } }
}

const PART_OVER_SECONDS = 0.005

/** One step, on its part of the sound: what is before and behind it stays and goes over into it in a few ms. */
function workStep(whole: Part, step: MatterStep): Float32Array[] {
  const { channels, rateHz, plan } = whole
  const { from, to, partFrames } = plan
  const strikes = whole.strikes.map((frame) => frame - from).filter((frame) => frame >= 0 && frame < to - from)
  const worked = workPart({ ...whole, channels: channels.map((channel) => channel.slice(from, to)), strikes }, step)
  if (from === 0 && to === channels[0]!.length) return worked
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
