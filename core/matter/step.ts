import { matterValue } from '../kit/matter-values'
import type { MatterStep } from '../kit/matter-values'
import { findAttacks } from './attacks'
import { grainsOf } from './grains'
import { noiseAnew } from './noise-anew'
import { partSound } from './parting'
import { workPieces } from './pieces'
import type { Passage } from './passage'
import type { StepPlan } from './plan'
import { createDraws } from './random'
import { resample } from './resample'
import { moveResonances } from './resonances'
import { stretch } from './stretch'

/** What one step works on, and what is known of it. */
export interface Part {
  readonly channels: Float32Array[]
  readonly rateHz: number
  readonly plan: StepPlan
  /** Frames that are struck, whatever is found. */
  readonly strikes: readonly number[]
  readonly told: (share: number) => void
}

type StepOf<Kind extends MatterStep['kind']> = MatterStep & { readonly kind: Kind }

/** What a step makes of a part, all of it. */
export function workPart(part: Part, step: MatterStep): Float32Array[] {
  switch (step.kind) {
    case 'time':
      return workTime(part, step as StepOf<'time'>)
    case 'grains':
      return workGrains(part, step as StepOf<'grains'>)
    case 'resonances':
      return moveResonances(part.channels, part.rateHz, part.plan.resonanceRatio, part.told)
    case 'ringing':
      return partedBy(part, step as StepOf<'ringing'>).ringing
    case 'noise':
      return workNoise(part, step as StepOf<'noise'>)
  }
}

function attacksOf({ channels, rateHz, strikes }: Part): number[] {
  const found = findAttacks(channels, rateHz)
  if (strikes.length === 0) return found
  // What was marked wins over what was found beside it.
  const near = 0.03 * rateHz
  const alone = found.filter((frame) => strikes.every((strike) => Math.abs(strike - frame) > near))
  return [...strikes.map(Math.round), ...alone].sort((a, b) => a - b)
}

/** A part piece by piece, from attack to attack, each attack kept for so long (s, of its own time). */
function byPieces(part: Part, keepSeconds: number, work: (passage: Passage) => Float32Array[], attacks = attacksOf(part)): Float32Array[] {
  return workPieces(part.channels, part.rateHz, attacks, part.plan.map, keepSeconds * part.rateHz, work, part.told)
}

function workTime(part: Part, step: StepOf<'time'>): Float32Array[] {
  const { rate, partFrames, resonanceRatio } = part.plan
  const slow = slowed(part, step)
  if (rate === 1) return slow
  const pitched = slow.map((channel) => resample(channel, rate, partFrames))
  return resonanceRatio === 1 ? pitched : moveResonances(pitched, part.rateHz, resonanceRatio)
}

/** The steadiest of what rings is told from noise by as much, where both are worked apart. */
const RINGS_SECONDS = 0.03

/**
 * A part at its new length. What rings is told from its noise, and each goes its own way, where the noise is to be as fast as it
 * was: phases that are followed along time stretch the wavering of noise too. An attack is as it was in both.
 */
function slowed(part: Part, step: StepOf<'time'>): Float32Array[] {
  const keepSeconds = (matterValue(step, 'keepMs') / 1000) * part.plan.rate
  const fresh = matterValue(step, 'freshNoise')
  const attacks = attacksOf(part)
  const moved = (channels: Float32Array[]) => {
    const random = createDraws(1)
    return byPieces({ ...part, channels }, keepSeconds, (passage) => stretch(passage, random), attacks)
  }
  if (fresh === 0) return moved(part.channels)
  const { ringing, noise } = partSound(part.channels, part.rateHz, { divideHz: 0, steadySeconds: RINGS_SECONDS })
  const draws = createDraws(matterValue(step, 'draw') + 1)
  const anew = byPieces({ ...part, channels: noise }, keepSeconds, (passage) => noiseAnew(passage, draws), attacks)
  const [old, share] = [fresh === 1 ? undefined : moved(noise), [Math.sqrt(fresh), Math.sqrt(1 - fresh)]]
  return moved(ringing).map((channel, i) =>
    channel.map((sample, frame) => sample + share[0]! * anew[i]![frame]! + share[1]! * (old?.[i]![frame] ?? 0)),
  )
}

/** Grains reach over attacks as they like; only the strike itself is kept. */
function workGrains(part: Part, step: StepOf<'grains'>): Float32Array[] {
  const value = (name: Parameters<typeof matterValue<'grains'>>[1]) => matterValue(step, name)
  const settings = { seconds: value('grainMs') / 1000, atOnce: value('atOnce'), straySeconds: value('strayMs') / 1000, strayCents: value('strayCents') } // prettier-ignore
  const random = createDraws(value('draw') + 1)
  const keepSeconds = value('keepMs') / 1000
  return byPieces(part, keepSeconds, (passage) => grainsOf(passage, settings, random), keepSeconds > 0 ? attacksOf(part).slice(0, 1) : [])
}

function partedBy({ channels, rateHz, told }: Part, step: StepOf<'ringing' | 'noise'>) {
  const own = step as StepOf<'noise'>
  return partSound(channels, rateHz, { divideHz: matterValue(own, 'divideHz'), steadySeconds: matterValue(own, 'steadyMs') / 1000 }, told)
}

function workNoise(whole: Part, step: StepOf<'noise'>): Float32Array[] {
  const { noise } = partedBy(whole, step)
  const anew = matterValue(step, 'anew')
  const part = { ...whole, channels: noise }
  if (anew === 0 && part.plan.partFrames === noise[0]!.length) return noise
  const random = createDraws(matterValue(step, 'draw') + 1)
  const keepSeconds = matterValue(step, 'keepMs') / 1000
  const fresh = anew > 0 ? byPieces(part, keepSeconds, (passage) => noiseAnew(passage, random)) : []
  if (anew === 1) return fresh
  const old = byPieces(part, keepSeconds, (passage) => stretch(passage, random))
  const [a, b] = [Math.sqrt(anew), Math.sqrt(1 - anew)]
  return old.map((channel, i) => channel.map((sample, frame) => b * sample + a * (fresh[i]?.[frame] ?? 0)))
}
