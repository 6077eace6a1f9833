import { withWorked } from '../engine'
import { workedKit } from '../matter'
import { peakOfAudio } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { writeWav } from '../audio/wav-write'
import type { Kit } from '../kit/kit'
import { padSettings } from '../kit/resolve'
import { clipName, namedPads, soundingCells } from './cells'
import { drawCell, leftOutOfHits } from './draw'
import type { AudioOf } from './draw'
import { fitGains, fitWords, scaled } from './fit'
import type { Fit } from './fit'
import { readme } from './readme'
import type { Shipment, ShippedFile } from './shipment'

/**
 * Every cell of a kit as a WAV file of its own, in a folder for each pad, as the hardest strike of its band sounds: level,
 * place, tuning and shape are in it. Pads and rays that are muted are left out.
 */
export function writeOneShots(given: Kit, sourceOf: AudioOf, fit: Fit = 'together'): Shipment {
  const kit = workedKit(given)
  const audioOf = withWorked(sourceOf)
  const drawn: { path: string; audio: Audio }[] = []
  const notes: string[] = []
  for (const named of namedPads(kit)) {
    const cells = soundingCells(kit, named)
    for (const cell of cells) {
      const audio = drawCell(cell, audioOf)
      if (audio) drawn.push({ path: `${named.name}/${cell.label}.wav`, audio })
      else notes.push(`${named.name}: the audio "${clipName(kit, cell.clip)}" is missing, so ${cell.label} was left out.`)
    }
    notes.push(...padNotes(kit, named.name, named.pad, cells.length))
  }
  const peaks = drawn.map(({ audio }) => peakOfAudio(audio))
  const gains = fitGains(peaks, fit)
  const words = fitWords(peaks, fit)
  notes.push(...leftOutOfHits(kit).map((words) => words[0].toUpperCase() + words.slice(1)))
  if (words) notes.unshift(words)
  const files: ShippedFile[] = drawn.map(({ path, audio }, i) => ({ path, bytes: writeWav(scaled(audio, gains[i]), { bits: 24 }) }))
  return { files: [...files, readme(kit, 'wav', notes, files)], notes, isTooLoud: words !== undefined }
}

function padNotes(kit: Kit, name: string, pad: Kit['pads'][number], cells: number): string[] {
  const settings = padSettings(kit, pad)
  const notes: string[] = []
  if (cells === 0 && settings.mode !== 'silencer' && pad.bands.length > 0) notes.push(`${name} is muted or silent; it was left out.`)
  if (cells > 0 && settings.mode !== 'oneShot')
    notes.push(`${name} is held or goes round when it is played; its files hold each clip once, to its end.`)
  if (cells > 0 && settings.responses.some(({ from, bypass }) => from.kind === 'chance' && !bypass))
    notes.push(`${name} wanders by chance; its files stand in the middle of that.`)
  return notes
}
