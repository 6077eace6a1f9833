import { measureSound } from '@heliaster/core/alike'
import { columnsOf, summarise, toMono } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import type { Measured } from '@heliaster/core/kit'

/** A small picture of a whole file with what was measured of it. */
export interface Picture {
  readonly low: Float32Array
  readonly high: Float32Array
  readonly measured: Measured
  /** Of long files, a finer picture, seen while the file is read: lowest and highest of each column in turn, 16 bits. */
  readonly wide?: Int16Array
}

const COLUMNS = 64
const WIDE_COLUMNS = 2048
const LONG_SECONDS = 10

export function pictureOf(audio: Audio, measured = measureSound(audio)): Picture {
  const mono = toMono(audio)
  const summary = summarise(mono)
  const picture = { ...columnsOf(summary, mono, 0, mono.length, COLUMNS), measured }
  if (mono.length < LONG_SECONDS * audio.sampleRateHz) return picture
  const { low, high } = columnsOf(summary, mono, 0, mono.length, WIDE_COLUMNS)
  const wide = Int16Array.from({ length: 2 * WIDE_COLUMNS }, (_, i) => {
    const sample = (i % 2 === 0 ? low : high)[i >> 1]
    return Math.round(32767 * Math.min(1, Math.max(-1, sample)))
  })
  return { ...picture, wide }
}
