import type { Clip } from '../kit/clip'
import { matterValue } from '../kit/matter-values'
import type { MatterStep } from '../kit/matter-values'
import { stepsOf } from './steps'

/** Resonances moved by velocity and chance are prepared in so many steps. */
const TONE_STEPS = 5
/** No clip is worked in more forms than this, and no pad's clips together: notes go before tones, and tones before takes. */
const MOST_FORMS = 100
const MOST_OF_PAD = 600

export interface AskedForms {
  readonly forms: readonly {
    readonly note: number | undefined
    readonly semitones: number
    readonly isTuned: boolean
    readonly octaves: number
    readonly take: number
  }[]
  readonly byVelocity: number
  readonly byChance: number
}

/** Where a clip is played: the notes of its pad, the one at which it is as recorded, and how many clips the pad has. */
export interface Played {
  readonly notes: readonly number[]
  readonly root: number | undefined
  /** The share by which its ray follows the note. */
  readonly keyTrack: number
  readonly clips: number
}

/**
 * The forms that a clip is worked in ahead of its strikes: one for each note of its pad where it keeps its length or its
 * resonances go their own way, a few with their resonances elsewhere where velocity or chance moves them, and as many takes as are asked for.
 */
export function formsOf(clip: Clip, { notes, root, keyTrack, clips }: Played): AskedForms {
  const steps = stepsOf(clip)
  const resonances = steps.filter((step): step is MatterStep & { kind: 'resonances' } => step.kind === 'resonances')
  const isTuned = steps.some((step) => step.kind === 'time' && (step.values.sameLength ?? 0) > 0)
  const follows = isTuned || resonances.some((step) => matterValue(step, 'followNote') !== 1) // prettier-ignore
  const byVelocity = resonances.reduce((sum, step) => sum + matterValue(step, 'byVelocity'), 0)
  const byChance = resonances.reduce((sum, step) => sum + matterValue(step, 'byChance'), 0)
  const most = Math.max(2, Math.min(MOST_FORMS, Math.floor(MOST_OF_PAD / Math.max(1, clips))))
  const played = root !== undefined && keyTrack !== 0 && follows ? spread([root, ...notes.filter((note) => note !== root)], most) : []
  const atNotes: { note: number | undefined; semitones: number; isTuned: boolean }[] =
    played.length > 0 ? played.map((note) => ({ note, semitones: keyTrack * (note - root!), isTuned })) : [{ note: undefined, semitones: 0, isTuned: false }]
  const tones = tonesOf(byVelocity, byChance)
  const few = atNotes.length * tones.length <= most ? tones : [0]
  const asked = Math.max(1, ...steps.map(takesOf))
  const takes = atNotes.length * few.length * asked <= most ? asked : 1
  if (played.length === 0 && few.length === 1 && takes === 1) return { forms: [], byVelocity: 0, byChance: 0 }
  return { forms: atNotes.flatMap((at) => few.flatMap((octaves) => Array.from({ length: takes }, (_, take) => ({ ...at, octaves, take })))), byVelocity, byChance }
} // prettier-ignore

/** The first of a list and others evenly over the rest, `most` at most: notes between them take the nearest and are tuned. */
function spread(notes: readonly number[], most: number): number[] {
  if (notes.length <= most) return [...notes]
  const [root, ...others] = notes
  const sorted = others.sort((a, b) => a - b)
  return [root!, ...Array.from({ length: most - 1 }, (_, i) => sorted[Math.round(((i + 0.5) * sorted.length) / (most - 1) - 0.5)]!)]
}

/** How many takes of a step are made; of noise that is not made anew there is one. */
function takesOf({ kind, values }: MatterStep): number {
  const isDrawn = kind === 'grains' || (kind === 'noise' && (values.anew ?? 0) > 0) || (kind === 'time' && (values.freshNoise ?? 0) > 0)
  return isDrawn ? Math.round(values.takes ?? 1) : 1
}

/** Octaves evenly over all that velocity and chance reach. */
function tonesOf(byVelocity: number, byChance: number): number[] {
  const [least, most] = [Math.min(0, byVelocity) - byChance, Math.max(0, byVelocity) + byChance]
  if (most - least < 1e-6) return [0]
  return Array.from({ length: TONE_STEPS }, (_, i) => Math.round(1e6 * (least + ((most - least) * i) / (TONE_STEPS - 1))) / 1e6)
}
