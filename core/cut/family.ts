import type { Audio } from '../audio/audio'
import { peakOf, toMono } from '../audio/audio'
import type { Family } from '../kit/families'
import { familyInName } from './family-names'
import { attackSeconds, decaySeconds } from './lengths'
import { pitchOf } from './pitch'
import type { Pitch } from './pitch'
import { magnitudes } from './spectrum'

const FAMILY_SECONDS = 1

/** What a sound is guessed to be, and what the guess stands on, in words. */
export interface FamilyGuess {
  readonly family: Family
  readonly reason: string
}

/** The guess alone, from what it is called or else from its first second: enough to sort hundreds of files by. */
export function familyOf(hit: Audio, name = ''): Family {
  const named = familyInName(name)
  if (named) return named
  const frames = Math.round(FAMILY_SECONDS * hit.sampleRateHz)
  const mono = toMono({ ...hit, channels: hit.channels.map((channel) => channel.subarray(0, frames)) })
  return guessFamily(mono, hit.sampleRateHz, pitchOf(mono, hit.sampleRateHz)).family
}

/** What a guess looks at: shares of the energy by range in dB, times in seconds. */
interface Heard {
  readonly low: number
  readonly mid: number
  readonly high: number
  readonly top: number
  readonly decay: number
  readonly attack: number
  readonly pitch?: Pitch
}

/**
 * A first guess from where the energy lies, how fast it comes and goes, and its pitch. It is a start for sorting, and says
 * no more than that: which cymbal it is, or how large a tom without a clear pitch, it leaves open.
 */
export function guessFamily(mono: Float32Array, sampleRateHz: number, pitch: Pitch | undefined): FamilyGuess {
  const peak = peakOf(mono)
  if (peak === 0) return { family: 'other', reason: 'silent' }
  const shares = sharesOf(mono, sampleRateHz)
  const heard = { ...shares, decay: decaySeconds(mono, sampleRateHz, peak), attack: attackSeconds(mono, sampleRateHz, peak), pitch }
  const { family, what } = ofLow(heard) ?? ofTone(heard) ?? ofNoise(heard)
  const length = heard.decay < 0.15 ? 'short' : heard.decay < 0.35 ? 'of middle length' : 'long'
  return { family, reason: `${what}, ${length} (${Math.round(heard.decay * 1000)} ms to -30 dB)` }
}

interface Said {
  readonly family: Family
  readonly what: string
}

/** Sounds that are low and nothing else: kicks are short or sink below any drum's tone, toms ring. */
function ofLow({ low, high, top, decay, pitch }: Heard): Said | undefined {
  if (low < -1.5 || high > -16 || top > -22) return undefined
  const isKick = decay < 0.26 || (pitch ? pitch.hz < 58 : decay < 0.35)
  return isKick ? { family: 'kick', what: 'very low' } : { family: tomOf(pitch), what: 'a low tone' }
}

/** Where a tom's tone changes its name, Hz. */
const MID_TOM_HZ = 95
const HIGH_TOM_HZ = 130

function tomOf(pitch: Pitch | undefined): Family {
  if (!pitch || pitch.confidence < 0.5) return 'tom'
  return pitch.hz < MID_TOM_HZ ? 'lowTom' : pitch.hz < HIGH_TOM_HZ ? 'midTom' : 'highTom'
}

/** Sounds that are a tone above the low ones: toms, bells, and wood where it is over at once. */
function ofTone({ low, high, top, decay, pitch }: Heard): Said | undefined {
  if (!pitch || pitch.confidence < 0.6) return undefined
  if (pitch.hz < 350)
    return low > -3 && Math.max(high, top) < -12 && decay > 0.2 ? { family: tomOf(pitch), what: 'a clear low tone' } : undefined
  if (low > -8) return undefined
  if (decay < 0.085 && top < -3) return { family: 'wood', what: 'a tone that is over at once' }
  return { family: 'bell', what: 'a clear tone' }
}

/** All others: by how bright they are, and how long. */
function ofNoise(heard: Heard): Said {
  const { low, mid, high, top, decay, attack } = heard
  const bright = Math.max(high, top)
  if (low > -8 && bright > -15 && decay >= 0.1 && decay < 0.6) return { family: 'snare', what: 'noise with a body' }
  if (bright > -8 && decay > 0.75) return { family: 'cymbal', what: 'bright' }
  if (top > -5 && low < -8) return ofBright(heard)
  if (bright > -4 && low < -8) return { family: decay < 0.12 ? 'closedHat' : decay < 0.75 ? 'shaker' : 'cymbal', what: 'bright' }
  if (mid > -2 && low < -15 && decay < 0.1) return { family: 'wood', what: 'a short knock' }
  if (mid > -6 || bright > -8) return { family: decay < 0.15 ? 'clap' : 'snare', what: attack > 0.003 ? 'a burst' : 'of middle brightness' }
  return decay < 0.2 ? { family: 'wood', what: 'rather dark' } : { family: 'tom', what: 'rather dark' }
}

/** Hats are struck, shakers swell; a hat that rings on is open. */
function ofBright({ decay, attack }: Heard): Said {
  if (attack > 0.004) return { family: 'shaker', what: 'very bright, and it swells' }
  return decay < 0.2 ? { family: 'closedHat', what: 'very bright' } : { family: 'openHat', what: 'very bright, and it rings' }
}

const LOOK_SECONDS = 0.17
const BORDERS_HZ = [400, 2000, 6000] as const

/** How much of the first moments' energy lies below 400 Hz, up to 2 kHz, up to 6 kHz and above, dB of the whole. */
function sharesOf(mono: Float32Array, sampleRateHz: number): Pick<Heard, 'low' | 'mid' | 'high' | 'top'> {
  const length = Math.min(mono.length, Math.round(LOOK_SECONDS * sampleRateHz))
  const size = 2 ** Math.ceil(Math.log2(Math.max(64, length)))
  const bins = magnitudes(mono, 0, size, length)
  const sums = [0, 0, 0, 0]
  for (let bin = 1; bin < bins.length; bin++) {
    const hz = (bin * sampleRateHz) / size
    const range = BORDERS_HZ.findIndex((border) => hz < border)
    sums[range < 0 ? 3 : range]! += bins[bin]! * bins[bin]!
  }
  const total = sums.reduce((a, b) => a + b, 1e-30)
  const [low, mid, high, top] = sums.map((sum) => 10 * Math.log10(sum / total + 1e-12)) as [number, number, number, number]
  return { low, mid, high, top }
}
