import { columnsOf, measure, summarise, toMono } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'

/** A small picture of a whole file with its level. */
export interface Picture {
  readonly low: Float32Array
  readonly high: Float32Array
  readonly peakDb: number
  readonly loudnessDb: number
}

const COLUMNS = 64

export function pictureOf(audio: Audio, { peakDb, loudnessDb } = measure(audio)): Picture {
  const mono = toMono(audio)
  return { ...columnsOf(summarise(mono), mono, 0, mono.length, COLUMNS), peakDb, loudnessDb }
}
