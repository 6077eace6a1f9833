import { frameCount, peakOf, toDb, toMono } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { strikeLoudness } from '../audio/loudness'
import type { Family } from '../kit/families'
import { guessFamily } from './family'
import { attackSeconds } from './lengths'
import { pitchOf } from './pitch'
import type { Pitch } from './pitch'
import { spectralCentreHz } from './spectrum'

export const warnings = ['clipped', 'cutShort', 'secondHit', 'nearNoise', 'dc', 'alike', 'odd'] as const
export type Warning = (typeof warnings)[number]

export interface HitDescription {
  readonly seconds: number
  readonly peakDb: number
  /** The loudest 100 ms, K-weighted after ITU-R BS.1770, LUFS. */
  readonly loudnessDb: number
  /** From a tenth to nine tenths of the strike's own peak. */
  readonly attackSeconds: number
  readonly pitch?: Pitch
  readonly centreHz: number
  readonly family: Family
  /** What the family guess stands on, in words. */
  readonly reason: string
  readonly warnings: Warning[]
}

/** What is known of the recording around a hit. */
export interface Surroundings {
  /** Level of the room it was recorded in. */
  readonly noiseDb: number
  /** Mean of the recording. */
  readonly dc: number
  /** Whether another strike sounds inside the hit. */
  readonly hasSecond: boolean
  /** A slice of a grid, which is meant to end before its sound does. */
  readonly isSlice?: boolean
}

/** What one hit is like, from its own samples. */
export function describeHit(hit: Audio, around: Surroundings): HitDescription {
  const mono = toMono(hit)
  const rate = hit.sampleRateHz
  const seconds = frameCount(hit) / rate
  const peak = peakOf(mono)
  const peakDb = toDb(mono === hit.channels[0] ? peak : Math.max(...hit.channels.map((channel) => peakOf(channel))))
  const pitch = pitchOf(mono, rate)
  const centreHz = spectralCentreHz(mono, rate)
  return {
    seconds,
    peakDb,
    loudnessDb: strikeLoudness(hit.channels, rate),
    attackSeconds: attackSeconds(mono, rate, peak),
    pitch,
    centreHz,
    ...guessFamily(mono, rate, pitch),
    warnings: warningsOf(hit, mono, peakDb, around),
  }
}

const MOST_DC = 0.003
const NEAR_NOISE_DB = 18
const CUT_SHORT_DB = 24

function warningsOf(hit: Audio, mono: Float32Array, peakDb: number, around: Surroundings): Warning[] {
  const found: Warning[] = []
  if (peakDb >= toDb(TOP) && hit.channels.some(isClipped)) found.push('clipped')
  const tail = peakAbout(around.dc, mono, Math.max(0, mono.length - Math.round(0.01 * hit.sampleRateHz)))
  if (!around.isSlice && toDb(tail) > peakDb - CUT_SHORT_DB && toDb(tail) > around.noiseDb + CUT_SHORT_DB / 2) found.push('cutShort')
  if (around.hasSecond) found.push('secondHit')
  if (peakDb - around.noiseDb < NEAR_NOISE_DB) found.push('nearNoise')
  if (Math.abs(around.dc) > MOST_DC) found.push('dc')
  return found
}

/** Largest distance of the samples from `middle`, from a frame on. */
function peakAbout(middle: number, samples: Float32Array, startFrame: number): number {
  let peak = 0
  for (let i = startFrame; i < samples.length; i++) peak = Math.max(peak, Math.abs(samples[i] - middle))
  return peak
}

const TOP = 0.9999

/** Three neighbouring samples at the very top are a flattened wave. */
function isClipped(channel: Float32Array): boolean {
  let run = 0
  for (let i = 0; i < channel.length; i++) {
    run = Math.abs(channel[i]) >= TOP ? run + 1 : 0
    if (run >= 3) return true
  }
  return false
}
