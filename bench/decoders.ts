import { readFileSync } from 'node:fs'

import { readAudioFile } from '../core/decode'
import { seeded } from '../core/kit/builders'
import type { Figure } from './figure'

const ENDINGS = ['wav', 'aiff', 'flac', 'oga', 'mp3', 'ogg', 'opus']
const TRIALS = 400

/** Every reader with damaged files: the longest it takes for one, and the most it keeps of one. */
export async function figuresOfDecoders(): Promise<Record<string, Figure>> {
  let slowestMs = 0
  let mostTimes = 0
  for (const ending of ENDINGS) {
    const whole = new Uint8Array(readFileSync(`core/decode/fixtures/strike.${ending}`))
    await readAudioFile(whole)
    const random = seeded(ending.length * 31 + whole.length)
    for (let trial = 0; trial < TRIALS; trial++) {
      const file = damaged(whole, random)
      const from = performance.now()
      const result = await readAudioFile(file)
      slowestMs = Math.max(slowestMs, performance.now() - from)
      const held = result.ok ? result.file.audio.channels.reduce((sum, channel) => sum + channel.byteLength, 0) : 0
      mostTimes = Math.max(mostTimes, held / Math.max(1, file.length))
    }
  }
  return {
    'decoders.slowestDamagedFileMs': { value: slowestMs, unit: `ms, of ${ENDINGS.length * TRIALS} files` },
    'decoders.mostMemoryTimesFile': { value: mostTimes, unit: 'times the file' },
  }
}

function damaged(whole: Uint8Array, random: () => number): Uint8Array {
  const below = (n: number) => Math.floor(random() * n)
  const file = whole.slice(0, below(4) === 0 ? below(whole.length) : whole.length)
  for (let i = below(8); i >= 0 && file.length > 0; i--)
    file[below(below(2) === 0 ? Math.min(96, file.length) : file.length)] = below(4) === 0 ? 255 : below(256)
  return file
}
