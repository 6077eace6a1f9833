import { notesOfPads, padSettings } from '../kit/resolve'
import type { Kit } from '../kit/kit'
import type { ShippedFile } from './shipment'

export const README = 'README.txt'

const WHAT = {
  sfz: 'One SFZ file and the WAV files it names, in "samples", a folder for each pad. Open the .sfz in any player of SFZ.',
  wav: 'Each hit as a WAV file of its own, in a folder for each pad: 24 bit, at the rate of its recording, as it sounds at the hardest strike of its velocity band. "b1 t2" is the second turn of the first (softest) band.',
  stems:
    'A groove or song as the kit plays it: the mix, and beside it the parts that add up to it, all of one length and aligned to the frame. WAV files of 32 bits, before what stands in the whole kit.',
  bundle: 'A kit with its recordings, unchanged. Heliaster opens it again as it was: choose this file with Open a bundle.',
} as const

/** What is in a zip, for someone who finds it without Heliaster. */
export function readme(
  kit: Kit,
  form: keyof typeof WHAT,
  notes: readonly string[],
  files: readonly Pick<ShippedFile, 'path' | 'name'>[],
): ShippedFile {
  const notesOf = notesOfPads(kit)
  const pads = kit.pads.map((pad) => {
    const turns = pad.bands.reduce((sum, band) => sum + band.turns.length, 0)
    const counts = `${count(pad.bands.length, 'band')}, ${count(turns, 'turn')}, ${count(pad.rays.length, 'ray')}`
    return `  ${(notesOf.get(pad.id) ?? []).join(' ') || '-'}  ${padSettings(kit, pad).name || 'Unnamed pad'}: ${counts}`
  })
  const lines = [
    oneLine(kit.name),
    '',
    WHAT[form],
    '',
    `${count(kit.pads.length, 'pad')}, each with its MIDI notes:`,
    ...pads,
    ...(notes.length > 0 ? ['', 'What is not as it is in the kit:', ...notes.map((note) => `  ${oneLine(note)}`)] : []),
    '',
    `${count(files.length, 'file')}:`,
    ...files.map(({ path, name }) => `  ${path}${name ? `  (${oneLine(name)})` : ''}`),
    '',
  ]
  return { path: README, bytes: new TextEncoder().encode(lines.join('\r\n')) }
}

function count(number: number, what: string): string {
  return `${number} ${what}${number === 1 ? '' : 's'}`
}

export function oneLine(text: string): string {
  return text.replace(/[\r\n]+/g, ' ')
}
