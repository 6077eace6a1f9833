import { readAudioFile } from '@heliaster/core/decode'
import { readBundle, checkKit } from '@heliaster/core/ship'

import { readBytes } from '../files'
import { InputFault } from '../input-fault'
import type { Command } from '../main'

/** Says what is wrong with bundles and audio files, and where. */
export const check: Command = {
  options: {},
  paths: [1, Infinity],
  async run({ paths }) {
    let problems = 0
    for (const path of paths) {
      const lines = await checkFile(path)
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

async function checkFile(path: string): Promise<Line[]> {
  const bytes = readBytes(path)
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return checkBundle(bytes)
  const read = await readAudioFile(bytes)
  if (!read.ok) return [{ text: read.message, isProblem: true }]
  return read.file.notes.map((text) => ({ text, isProblem: true }))
}

async function checkBundle(bytes: Uint8Array): Promise<Line[]> {
  const opened = readBundle(bytes)
  if (!opened.ok) return [{ text: opened.message, isProblem: true }]
  const { kit, audio } = opened.bundle
  const damaged: Line[] = []
  for (const [hash, file] of audio) {
    const read = await readAudioFile(file)
    if (!read.ok) damaged.push({ text: `audio/${hash.slice(0, 12)}: ${read.message}`, isProblem: true })
  }
  const findings = checkKit(kit, (hash) => audio.has(hash)).map(({ where, message, severity }) => ({
    text: `${where}: ${message}`,
    isProblem: severity === 'problem',
  }))
  return [...findings, ...damaged]
}
