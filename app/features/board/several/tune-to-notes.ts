import type { AudioHash, Clip, Kit, KitEdit, Pad } from '@heliaster/core/kit'

import { decodedAudio } from '../../../audio/files/audio-files'
import { coreWork } from '../../../audio/workers/workers'
import { noteName } from '../../../kit-view/note-name'

/** As far as a pad can be tuned, cents. */
const FARTHEST_CENTS = 12000

/** A pad with what it would take to sound at its note. */
export interface Wanted {
  readonly pad: Pad
  readonly cents: number
}

export interface Tuning {
  readonly wanted: readonly Wanted[]
  /** What is said of pads that stay, and of sounds without a pitch. */
  readonly words: string
}

const OCTAVE = 1200

/**
 * What each pad needs to sound at its first note: by the pitch its clip was measured to have. A sound without a pitch
 * counts as the lowest note it answers, so that the same noise on neighbouring notes makes a row.
 */
export async function measureTuning(kit: Kit, pads: readonly Pad[]): Promise<Tuning> {
  const lowest = new Map<AudioHash, number>()
  const placed = pads.flatMap((pad) => {
    const clip = firstClip(pad)
    const note = pad.notes[0]
    if (!clip || note === undefined) return []
    lowest.set(clip.audio, Math.min(note, lowest.get(clip.audio) ?? Infinity))
    return [{ pad, clip, note }]
  })
  let unpitched = 0
  const wanted: Wanted[] = []
  for (const { pad, clip, note } of placed) {
    const hz = await coreWork().clipPitchHz((await decodedAudio(clip.audio)).audio, clip)
    if (hz === undefined) unpitched++
    const sounds = hz === undefined ? lowest.get(clip.audio)! : 69 + 12 * Math.log2(hz / kit.tuningA4Hz)
    wanted.push({ pad, cents: Math.round(100 * (note - sounds)) })
  }
  const left = pads.length - placed.length
  const words = [
    unpitched > 0 ? `${unpitched} had no clear pitch: the lowest note of the same file, ${noteName(Math.min(...lowest.values()))} at the lowest, counts as it was recorded.` : '', // prettier-ignore
    left > 0 ? `${left} have no clip or no note and stay.` : '',
  ]
  return { wanted, words: words.filter(Boolean).join(' ') }
}

/** How many octaves up (or, below 0, down) the farthest pad would be moved to sound at the very note; 0 within one. */
export function octavesAway(wanted: readonly Wanted[]): number {
  const farthest = wanted.reduce((most, { cents }) => (Math.abs(cents) > Math.abs(most) ? cents : most), 0)
  return Math.abs(farthest) <= OCTAVE ? 0 : Math.round(farthest / OCTAVE) || Math.sign(farthest)
}

/**
 * The same notes in the octave in which the pads sound already: all are moved by the same octaves, so that a row stays a
 * row; a pad that is still more than an octave away goes to the nearest of its own.
 */
export function nearestOctave(wanted: readonly Wanted[]): Wanted[] {
  const sorted = wanted.map(({ cents }) => cents).sort((a, b) => a - b)
  const shared = OCTAVE * Math.round((sorted[sorted.length >> 1] ?? 0) / OCTAVE)
  return wanted.map(({ pad, cents }) => {
    const moved = cents - shared
    return { pad, cents: Math.abs(moved) <= OCTAVE ? moved : moved - OCTAVE * Math.round(moved / OCTAVE) }
  })
}

export function tuneEdits(wanted: readonly Wanted[]): { edits: KitEdit[]; words: string } {
  const near = wanted.filter(({ cents }) => Math.abs(cents) <= FARTHEST_CENTS)
  const edits = near.map(({ pad, cents }): KitEdit => ({ type: 'setPad', padId: pad.id, own: { values: { tuneCents: cents } } }))
  const words = `${edits.length} ${edits.length === 1 ? 'pad is' : 'pads are'} tuned to ${edits.length === 1 ? 'its note' : 'their notes'}.`
  const far = wanted.length - near.length
  return { edits, words: far > 0 ? `${words} ${far} would have to be tuned further than ten octaves and stay.` : words }
}

function firstClip(pad: Pad): Clip | undefined {
  for (const band of pad.bands)
    for (const turn of band.turns) {
      const clip = turn.clips[pad.rays[0].id]
      if (clip && clip !== 'intendedSilence') return clip
    }
  return undefined
}
