import type { Audio } from '../../../audio/audio'
import { dbToGain, exp2, sin } from '../../math'
import { BIG_BINS, BIG_FRAMES, HEAD_FRAMES, impulseFloats, MOST_SMALL, roomFloats, SMALL_BINS, TURNS } from '../../mix/effects/both/sizes'
import { transform } from '../../mix/effects/both/transform'
import { useLines } from '../../voice/both/cells'
import type { EffectContext, EffectNumbers, Settings } from './numbers'

/** A recorded impulse as the engine reads it, and what it goes by. */
export interface LaidRoom extends EffectNumbers {
  readonly samples: Float32Array
}

/** The longest that is used of an impulse, and how loud its end may be to be left out. */
const LONGEST_SECONDS = 8
const SILENT = 0.00003
/** Up to here it is near, from there on far, going over for as long again. */
const NEAR_SECONDS = 0.04
const PI = 3.141592653589793

/**
 * Lays out the impulse of a room: at the engine's rate, its silence at both ends left out, of the power of a click of 1, its
 * near and its far part weighed, its decay scaled.
 */
export function layRoom(audio: Audio, of: Settings, context: EffectContext): LaidRoom {
  const sides = shaped(audio, of, context)
  const frames = sides[0].length
  const smallParts = Math.min(MOST_SMALL, Math.max(0, Math.ceil((frames - HEAD_FRAMES) / HEAD_FRAMES)))
  const bigFrom = HEAD_FRAMES * (1 + MOST_SMALL)
  const bigParts = Math.max(0, Math.ceil((frames - bigFrom) / BIG_FRAMES))
  const ownFloats = impulseFloats(sides.length, smallParts, bigParts)
  const samples = new Float32Array(ownFloats + roomFloats(smallParts, bigParts))
  for (let i = 0; i < TURNS / 2; i++) {
    samples[i] = sin((2 * PI * i) / TURNS + PI / 2)
    samples[TURNS / 2 + i] = sin((2 * PI * i) / TURNS)
  }
  sides.forEach((side, i) => samples.set(side.subarray(0, HEAD_FRAMES), TURNS + i * HEAD_FRAMES))
  const smallAt = TURNS + sides.length * HEAD_FRAMES
  const bigAt = smallAt + sides.length * smallParts * SMALL_BINS
  sides.forEach((side, i) => {
    for (let part = 0; part < smallParts; part++)
      putSpectrum(samples, smallAt + (i * smallParts + part) * SMALL_BINS, side, HEAD_FRAMES * (1 + part), HEAD_FRAMES)
    for (let part = 0; part < bigParts; part++)
      putSpectrum(samples, bigAt + (i * bigParts + part) * BIG_BINS, side, bigFrom + BIG_FRAMES * part, BIG_FRAMES)
  })
  const values = [smallParts, bigParts, sides.length > 1 ? 1 : 0, of.number('mix')]
  return { values, jumps: 3, tailFrames: frames + 2 * BIG_FRAMES, floats: samples.length, shape: '', samples }
}

/** The spectrum of a part, with as much silence behind it; bins up to half the rate, real parts first. */
function putSpectrum(samples: Float32Array, to: number, side: Float32Array, from: number, frames: number): void {
  const work = new Float32Array(TURNS + 4 * frames)
  work.set(samples.subarray(0, TURNS))
  work.set(side.subarray(from, from + frames), TURNS)
  useLines(work, 0)
  transform(0, TURNS, TURNS + 2 * frames, 2 * frames)
  samples.set(work.subarray(TURNS, TURNS + frames + 1), to)
  samples.set(work.subarray(TURNS + 2 * frames, TURNS + 3 * frames + 1), to + frames + 1)
}

function shaped(audio: Audio, of: Settings, context: EffectContext): Float32Array[] {
  const { sampleRateHz } = context
  const channels = audio.channels.slice(0, 2).map((channel) => resampled(channel, audio.sampleRateHz, sampleRateHz))
  const loudest = channels.reduce((most, channel) => channel.reduce((peak, one) => Math.max(peak, Math.abs(one)), most), 0)
  const heard = (i: number) => channels.some((channel) => Math.abs(channel[i]) > SILENT * loudest)
  let from = 0
  while (from < channels[0].length - 1 && !heard(from)) from++
  let end = Math.min(channels[0].length, from + LONGEST_SECONDS * sampleRateHz)
  while (end > from + 1 && !heard(end - 1)) end--
  const before = Math.floor(of.number('beforeSeconds') * sampleRateHz + 0.5)
  const sides = channels.map((channel) => {
    const side = new Float32Array(before + end - from)
    for (let i = from; i < end; i++) side[before + i - from] = channel[i] * weightAt(i - from, of, sampleRateHz)
    return side
  })
  const power = sides.reduce((sum, side) => sum + side.reduce((total, one) => total + one * one, 0), 0) / sides.length
  const gain = power > 0 ? 1 / Math.sqrt(power) : 0
  return sides.map((side) => side.map((one) => one * gain))
}

/** Near and far against each other, and its decay as long or short as it is asked for. */
function weightAt(i: number, of: Settings, sampleRateHz: number): number {
  const seconds = i / sampleRateHz
  const far = Math.min(1, Math.max(0, seconds / NEAR_SECONDS - 1))
  const near = of.number('near')
  const share = (1 - far) * Math.min(1, 2 * near) + far * Math.min(1, 2 - 2 * near)
  return share * stretch(seconds, of.number('decayScale'))
}

/** As if the room lost 60 dB in 1.5 s: so much is added to that or taken from it. */
function stretch(seconds: number, scale: number): number {
  return scale === 1 ? 1 : Math.min(dbToGain(24), exp2(-6.643856 * seconds * (1 / scale - 1)))
}

/** By sincs of 32 samples under raised cosines. */
function resampled(channel: Float32Array, fromHz: number, toHz: number): Float32Array {
  if (fromHz === toHz) return channel
  const ratio = fromHz / toHz
  const cutoff = Math.min(1, 1 / ratio)
  const reach = 16 / cutoff
  return Float32Array.from({ length: Math.floor(channel.length / ratio) }, (_, i) => {
    const middle = i * ratio
    let sum = 0
    for (let k = Math.ceil(middle - reach); k <= middle + reach; k++) {
      if (k < 0 || k >= channel.length) continue
      const away = (k - middle) * cutoff
      const window = 0.5 + 0.5 * sin(PI * (away / 16 + 0.5))
      sum += channel[k] * cutoff * (away === 0 ? 1 : sin(PI * away) / (PI * away)) * window
    }
    return sum
  })
}
