import { frameCount, peakOf, toDb, toMono } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { momentaryLoudness } from '../audio/loudness'
import type { families } from '../kit/kit'
import { findOnsets } from './onsets'
import { pitchOf } from './pitch'
import type { Pitch } from './pitch'
import { spectralCentreHz } from './spectrum'
import { strengthCurve } from './strength'

export type Family = (typeof families)[number]
export type Warning = 'clipped' | 'cutShort' | 'secondHit' | 'nearNoise'

export interface HitDescription {
  readonly seconds: number
  readonly peakDb: number
  readonly loudnessDb: number
  readonly pitch?: Pitch
  readonly centreHz: number
  readonly family: Family
  readonly warnings: Warning[]
}

/** What one hit is like, from its own samples. `noiseDb` is the level of the room it was recorded in. */
export function describeHit(hit: Audio, noiseDb: number): HitDescription {
  const mono = toMono(hit)
  const seconds = frameCount(hit) / hit.sampleRateHz
  const peakDb = toDb(Math.max(...hit.channels.map((channel) => peakOf(channel))))
  const pitch = pitchOf(mono, hit.sampleRateHz)
  const centreHz = spectralCentreHz(mono, hit.sampleRateHz)
  return {
    seconds,
    peakDb,
    loudnessDb: momentaryLoudness(hit.channels, hit.sampleRateHz),
    pitch,
    centreHz,
    family: guessFamily(centreHz, decaySeconds(mono, hit.sampleRateHz), pitch),
    warnings: warningsOf(hit, mono, peakDb, noiseDb),
  }
}

const FAMILY_SECONDS = 1

/** The family guess alone, from the first second: enough to sort hundreds of files by. */
export function familyOf(hit: Audio): Family {
  const frames = Math.round(FAMILY_SECONDS * hit.sampleRateHz)
  const mono = toMono({ ...hit, channels: hit.channels.map((channel) => channel.subarray(0, frames)) })
  return guessFamily(spectralCentreHz(mono, hit.sampleRateHz), decaySeconds(mono, hit.sampleRateHz), pitchOf(mono, hit.sampleRateHz))
}

/** Time until the sound stays 30 dB under its peak. */
function decaySeconds(mono: Float32Array, sampleRateHz: number): number {
  const level = peakOf(mono) * 0.0316
  let last = 0
  for (let i = 0; i < mono.length; i++) if (Math.abs(mono[i]) > level) last = i
  return last / sampleRateHz
}

/** A first guess from brightness, length and pitch. It is a start for sorting, and says no more than that. */
function guessFamily(centreHz: number, decay: number, pitch: Pitch | undefined): Family {
  if (centreHz < 180) return 'kick'
  if (pitch && pitch.confidence > 0.9 && centreHz < 700) return 'tom'
  if (pitch && pitch.confidence > 0.9 && decay > 0.35) return 'bell'
  if (centreHz > 5000) return decay < 0.25 ? 'hat' : 'cymbal'
  if (centreHz > 2500) return decay < 0.12 ? 'hat' : 'shaker'
  if (centreHz > 900) return decay < 0.15 ? 'clap' : 'snare'
  return decay < 0.2 ? 'wood' : 'tom'
}

function warningsOf(hit: Audio, mono: Float32Array, peakDb: number, noiseDb: number): Warning[] {
  const warnings: Warning[] = []
  if (hit.channels.some(isClipped)) warnings.push('clipped')
  const tail = peakOf(mono, Math.max(0, mono.length - Math.round(0.01 * hit.sampleRateHz)))
  if (toDb(tail) > peakDb - 24) warnings.push('cutShort')
  const strikes = findOnsets(mono, hit.sampleRateHz, strengthCurve(mono, hit.sampleRateHz), 0.45, 0.03)
  if (strikes.some((strike) => strike.frame > 0.02 * hit.sampleRateHz)) warnings.push('secondHit')
  if (peakDb - noiseDb < 18) warnings.push('nearNoise')
  return warnings
}

/** Three neighbouring samples at the very top are a flattened wave. */
function isClipped(channel: Float32Array): boolean {
  let run = 0
  for (let i = 0; i < channel.length; i++) {
    run = Math.abs(channel[i]) >= 0.9999 ? run + 1 : 0
    if (run >= 3) return true
  }
  return false
}
