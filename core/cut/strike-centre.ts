import { peakOf, toMono } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { spectralCentreHz } from './spectrum'

/** Where the energy of a file's first strike balances, Hz; 0 for silence. What lies before it is passed over. */
export function strikeCentreHz(audio: Audio): number {
  const mono = toMono(audio)
  const line = 0.1 * peakOf(mono)
  const from = line > 0 ? mono.findIndex((sample) => Math.abs(sample) >= line) : -1
  return from < 0 ? 0 : spectralCentreHz(mono.subarray(from), audio.sampleRateHz)
}
