import type { AudioHash, Clip, Kit, KitEdit, Pad } from '@heliaster/core/kit'

import { decodedAudio } from '../../../audio/audio-files'
import { coreWork } from '../../../audio/workers'
import { noteName } from '../../../ui/note-name'

/** As far as a pad can be tuned, cents. */
const FARTHEST_CENTS = 12000

/**
 * Tunes each pad so that what is on it sounds at the pad's first note: by the pitch its file was measured to have. A
 * file without a pitch counts as the lowest note it answers, so that the same noise on neighbouring notes makes a row.
 */
export async function tuneToNotes(kit: Kit, pads: readonly Pad[]): Promise<{ edits: KitEdit[]; words: string }> {
  const lowest = new Map<AudioHash, number>()
  const placed = pads.flatMap((pad) => {
    const clip = firstClip(pad)
    const note = pad.notes[0]
    if (!clip || note === undefined) return []
    lowest.set(clip.audio, Math.min(note, lowest.get(clip.audio) ?? Infinity))
    return [{ pad, clip, note }]
  })
  let unpitched = 0
  let tooFar = 0
  const edits: KitEdit[] = []
  for (const { pad, clip, note } of placed) {
    const hz = await coreWork().clipPitchHz((await decodedAudio(clip.audio)).audio, clip)
    if (hz === undefined) unpitched++
    const sounds = hz === undefined ? lowest.get(clip.audio)! : 69 + 12 * Math.log2(hz / kit.tuningA4Hz)
    const tuneCents = Math.round(100 * (note - sounds))
    if (Math.abs(tuneCents) > FARTHEST_CENTS) tooFar++
    else edits.push({ type: 'setPad', padId: pad.id, own: { tuneCents } })
  }
  const left = pads.length - placed.length
  const words = [
    `${edits.length} ${edits.length === 1 ? 'pad is' : 'pads are'} tuned to ${edits.length === 1 ? 'its note' : 'their notes'}.`,
    unpitched > 0 ? `${unpitched} had no clear pitch: the lowest note of the same file, ${noteName(Math.min(...lowest.values()))} at the lowest, counts as it was recorded.` : '', // prettier-ignore
    tooFar > 0 ? `${tooFar} would have to be tuned further than ten octaves and stay.` : '',
    left > 0 ? `${left} have no clip or no note and stay.` : '',
  ]
  return { edits, words: words.filter(Boolean).join(' ') }
}

function firstClip(pad: Pad): Clip | undefined {
  for (const band of pad.bands)
    for (const turn of band.turns) {
      const clip = turn.clips[pad.rays[0].id]
      if (clip && clip !== 'intendedSilence') return clip
    }
  return undefined
}
