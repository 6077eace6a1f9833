import { columnsOf, measure, summarise, toMono } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import type { Measured } from '@heliaster/core/kit'

/** A small picture of a whole file with what was measured of it. */
export interface Picture {
  readonly low: Float32Array
  readonly high: Float32Array
  readonly measured: Measured
}

const COLUMNS = 64

export function pictureOf(audio: Audio, measured = measure(audio)): Picture {
  const mono = toMono(audio)
  return { ...columnsOf(summarise(mono), mono, 0, mono.length, COLUMNS), measured }
}
