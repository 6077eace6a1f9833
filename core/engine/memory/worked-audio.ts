import type { Audio } from '../../audio/audio'
import type { AudioHash } from '../../kit/ids'
import { matterValues } from '../../kit/matter-values'
import type { MatterStep } from '../../kit/matter-values'
import { stepsOf } from '../../matter/steps'
import { recipeOf } from '../../matter/recipes'
import type { Recipe } from '../../matter/recipes'
import { workMatter } from '../../matter/work'
import type { MatterResult } from '../../matter/work'
import { clipSamples } from './clip-region'

/** What a recipe makes of its source: of the clip's stretch with its repairs and channels, before reverse, fades and level. */
export function workRecipe(
  { clip, tempoBpm, semitones, octaves, take }: Recipe,
  source: Audio,
  told?: (share: number) => void,
): MatterResult {
  const channels = clipSamples(source, { ...clip, reverse: false, fadeInSeconds: 0, fadeOutSeconds: 0 })
  const strikes = clip.slices?.map(({ frame }) => frame)
  return workMatter({ audio: { sampleRateHz: source.sampleRateHz, channels }, startFrame: clip.startFrame, steps: stepsOf(clip).map((step) => drawnBy(step, take)), tempoBpm, semitones, octaves, ...(strikes ? { strikes } : {}) }, told) // prettier-ignore
}

/** Takes draw from far apart. */
const DRAWS_APART = 7919
const MOST_DRAW = 65_536

/** A step as another take of it draws. */
function drawnBy(step: MatterStep, take: number): MatterStep {
  if (take === 0 || !('draw' in matterValues[step.kind])) return step
  return { ...step, values: { ...step.values, draw: ((step.values.draw ?? 0) + take * DRAWS_APART) % MOST_DRAW } }
}

/** What was worked last stays at hand, so many samples of it. */
const MOST_SAMPLES = 8 << 20
const worked = new Map<AudioHash, Audio | undefined>()

/** Audio of recordings as it is given, and of worked sounds as they are worked, each once while it is at hand. */
export function withWorked(audioOf: (hash: AudioHash) => Audio | undefined): (hash: AudioHash) => Audio | undefined {
  return (hash) => {
    const given = audioOf(hash)
    if (given || worked.has(hash)) return given ?? worked.get(hash)
    const recipe = recipeOf(hash)
    const source = recipe && audioOf(recipe.clip.audio)
    if (!source) return undefined
    const result = workRecipe(recipe, source)
    keep(hash, result.ok ? result.audio : undefined)
    return worked.get(hash)
  }
}

function keep(hash: AudioHash, audio: Audio | undefined): void {
  worked.set(hash, audio)
  const samplesOf = (one: Audio | undefined) => (one ? one.channels.length * (one.channels[0]?.length ?? 0) : 0)
  let samples = [...worked.values()].reduce((sum, one) => sum + samplesOf(one), 0)
  for (const [oldest, one] of worked) {
    if (samples <= MOST_SAMPLES || oldest === hash) return
    samples -= samplesOf(one)
    worked.delete(oldest)
  }
}
