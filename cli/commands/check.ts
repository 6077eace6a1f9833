import { formatOf, isPackaged, readAudioFile } from '@heliaster/core/decode'
import { readAnyFile } from '@heliaster/core/decode/any'
import type { Audio } from '@heliaster/core/audio'
import type { AudioHash } from '@heliaster/core/kit'
import { checkKit, readAll, readBundle, writeOneShots, writeSfz } from '@heliaster/core/ship'

import { readBytes } from '../files'
import { InputFault } from '../input-fault'
import { choiceOption } from '../main'
import type { Command } from '../main'

const forms = ['sfz', 'wav'] as const
type Form = (typeof forms)[number]

/** Says what is wrong with bundles and audio files, and where; with a form also what that would leave out or lower. */
export const check: Command = {
  options: { as: { type: 'string' } },
  paths: [1, Infinity],
  async run(given) {
    const as = given.options.as === undefined ? undefined : choiceOption(given, 'as', forms)
    let problems = 0
    for (const path of given.paths) {
      const lines = await checkFile(path, as)
      for (const line of lines) console.log(`${path}: ${line.text}`)
      if (lines.length === 0) console.log(`${path}: nothing found`)
      problems += lines.filter((line) => line.isProblem).length
    }
    if (problems > 0) throw new InputFault(`${problems} ${problems === 1 ? 'problem' : 'problems'} found.`)
  },
}

interface Line {
  readonly text: string
  readonly isProblem: boolean
}

async function checkFile(path: string, as: Form | undefined): Promise<Line[]> {
  const bytes = readBytes(path)
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return checkBundle(bytes, as)
  const read = await readAnyFile(bytes)
  if (!read.ok) return [{ text: read.message, isProblem: true }]
  return read.file.notes.map((text) => ({ text, isProblem: true }))
}

async function checkBundle(bytes: Uint8Array, as: Form | undefined): Promise<Line[]> {
  const opened = readBundle(bytes)
  if (!opened.ok) return [{ text: opened.message, isProblem: true }]
  const { kit } = opened.bundle
  const { audio } = readAll(opened.bundle)
  const damaged: Line[] = []
  const decoded = new Map<AudioHash, Audio>()
  for (const [hash, file] of audio) {
    const format = formatOf(file)
    if (format && isPackaged(format)) continue // an original, beside what was decoded of it
    const read = await readAudioFile(file)
    if (read.ok) decoded.set(hash, read.file.audio)
    else damaged.push({ text: `audio/${hash.slice(0, 12)}: ${read.message}`, isProblem: true })
  }
  const findings = checkKit(kit, (hash) => audio.has(hash)).map(({ where, message, severity }) => ({
    text: `${where}: ${message}`,
    isProblem: severity === 'problem',
  }))
  const audioOf = (hash: AudioHash) => decoded.get(hash)
  const asWav = writeOneShots(kit, audioOf)
  const tooLoud = asWav.isTooLoud ? [`Written as WAV files: ${asWav.notes[0]}`] : []
  const shipped = as === 'sfz' ? writeSfz(kit, audioOf).notes : as === 'wav' ? asWav.notes : tooLoud
  return [...findings, ...damaged, ...shipped.map((text) => ({ text, isProblem: false }))]
}
