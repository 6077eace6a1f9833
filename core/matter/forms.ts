import type { Clip } from '../kit/clip'
import { matterValue } from '../kit/matter-values'
import type { MatterStep } from '../kit/matter-values'
import { stepsOf } from './steps'

/** Resonances moved by velocity and chance are prepared in so many steps. */
const TONE_STEPS = 5
/** No clip is worked in more forms than this: notes go before tones. */
const MOST_FORMS = 100

export interface AskedForms {
  readonly forms: readonly {
    readonly note: number | undefined
    readonly semitones: number
    readonly octaves: number
    readonly take: number
  }[]
  readonly byVelocity: number
  readonly byChance: number
}

/**
 * The forms that a clip is worked in ahead of its strikes: one for each note of its pad where it keeps its length or its
 * resonances follow, a few with their resonances elsewhere where velocity or chance moves them, and as many takes as are asked for.
 */
export function formsOf(clip: Clip, notes: readonly number[], root: number | undefined, keyTrack: number): AskedForms {
  const steps = stepsOf(clip)
  const resonances = steps.filter((step): step is MatterStep & { kind: 'resonances' } => step.kind === 'resonances')
  const follows = steps.some((step) => step.kind === 'time' && (step.values.sameLength ?? 0) > 0) || resonances.some((step) => matterValue(step, 'followNote') > 0) // prettier-ignore
  const byVelocity = resonances.reduce((sum, step) => sum + matterValue(step, 'byVelocity'), 0)
  const byChance = resonances.reduce((sum, step) => sum + matterValue(step, 'byChance'), 0)
  const played = root !== undefined && keyTrack !== 0 && follows ? [...new Set([root, ...notes])] : []
  const atNotes: { note: number | undefined; semitones: number }[] =
    played.length > 0 ? played.slice(0, MOST_FORMS).map((note) => ({ note, semitones: keyTrack * (note - root!) })) : [{ note: undefined, semitones: 0 }]
  const tones = tonesOf(byVelocity, byChance)
  const few = atNotes.length * tones.length <= MOST_FORMS ? tones : [0]
  const asked = Math.max(1, ...steps.map(takesOf))
  const takes = atNotes.length * few.length * asked <= MOST_FORMS ? asked : 1
  if (played.length === 0 && few.length === 1 && takes === 1) return { forms: [], byVelocity: 0, byChance: 0 }
  return { forms: atNotes.flatMap((at) => few.flatMap((octaves) => Array.from({ length: takes }, (_, take) => ({ ...at, octaves, take })))), byVelocity, byChance }
} // prettier-ignore

/** How many takes of a step are made; of noise that is not made anew there is one. */
function takesOf({ kind, values }: MatterStep): number {
  const isDrawn = kind === 'grains' || (kind === 'noise' && (values.anew ?? 0) > 0)
  return isDrawn ? Math.round(values.takes ?? 1) : 1
}

/** Octaves evenly over all that velocity and chance reach. */
function tonesOf(byVelocity: number, byChance: number): number[] {
  const [least, most] = [Math.min(0, byVelocity) - byChance, Math.max(0, byVelocity) + byChance]
  if (most - least < 1e-6) return [0]
  return Array.from({ length: TONE_STEPS }, (_, i) => Math.round(1e6 * (least + ((most - least) * i) / (TONE_STEPS - 1))) / 1e6)
}
