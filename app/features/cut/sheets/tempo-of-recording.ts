import { findHits, tempoInName, tempoOf, toldTempo } from '@heliaster/core/cut'
import type { Source } from '@heliaster/core/kit'

import type { Analysis } from '../bench/use-source-cut'

/** A tempo, where its first beat falls, s, and who says so. */
export interface FoundTempo {
  readonly bpm: number
  readonly firstSeconds: number
  readonly from: 'file' | 'name' | 'strikes'
}

/** The tempo of a recording: what its file says before what its name says before what is heard; undefined where nothing is. */
export function tempoOfRecording(source: Source, analysis: Analysis): FoundTempo | undefined {
  const rate = analysis.audio.sampleRateHz
  const strikes = findHits(analysis.mono, rate, analysis.strikes, undefined, undefined, analysis.places)
  const heard = tempoOf(strikes.map(({ frame, strength }) => ({ seconds: frame / rate, strength })))
  const told = toldTempo(source.told ?? {}, source.info.frames / source.info.sampleRateHz)
  if (told) return { bpm: told, firstSeconds: strikes[0] ? strikes[0].frame / rate : 0, from: 'file' }
  const named = tempoInName(source.name) ?? tempoInName(source.info.name)
  if (named) return { bpm: named, firstSeconds: strikes[0] ? strikes[0].frame / rate : 0, from: 'name' }
  return heard && { bpm: heard.bpm, firstSeconds: heard.firstSeconds, from: 'strikes' }
}
