import type { Parameter } from '../../../kit/parameters'
import { envelopeAt } from './envelope'
import { bessel, held, RATE } from './terms'
import type { Sides } from './terms'
import type { Voice } from './voice'

/** The clip at its pitch: a running sum of rates, read through a windowed sinc. */
export function read(voice: Voice, frames: number): { sides: Sides; positions: Float64Array; endFrame: number } {
  const { shape, settings, ray, strike } = voice
  const { startSeconds, endSeconds } = shape.values
  const root = settings.rootNote
  const tracked = root === undefined ? 0 : held((ray.values.keyTrack ?? 0) + voice.settled('keyTrack'), 0, 1) * (strike.note - root) * 100
  const base = settings.values.tuneCents + (ray.values.tuneCents ?? 0) + tracked + voice.settled('tuneCents')
  const seconds = (value: number, name: Parameter) => Math.max(0, value + voice.settled(name))
  const rateHz = RATE * voice.clipRate
  const end = Math.max(0, voice.sides[0].length - Math.floor(seconds(endSeconds, 'endSeconds') * rateHz + 0.5))
  const sides = voice.sides.map(() => new Float64Array(frames))
  const positions = new Float64Array(frames)
  let position = Math.floor(seconds(startSeconds, 'startSeconds') * rateHz + 0.5)
  let endFrame = frames
  const centsAt = (t: number) => {
    const heard = t - voice.ahead
    const share = held(shape.values.pitchEnvelope + voice.settled('pitchEnvelope'), -4, 4) + voice.moved('pitchEnvelope', heard)
    return voice.moved('tuneCents', heard) + (envelopeAt(shape.envelopes.pitch, t, voice.otherScale) ?? 0) * share
  }
  for (let t = 0; t < frames; t++) {
    const rate = voice.clipRate * 2 ** ((base + centsAt(t)) / 1200)
    if (position >= end) {
      endFrame = Math.min(endFrame, t)
      continue
    }
    positions[t] = position
    const next = voice.clipRate * 2 ** ((base + centsAt(t + 1)) / 1200)
    const isPlain = rate === 1 && next === 1 && Number.isInteger(position)
    sides.forEach((side, i) => (side[t] = isPlain ? voice.sides[i][position] : between(voice.sides[i], position, rate)))
    position += rate
  }
  return { sides, positions, endFrame }
}

const WIDTH = 92 / (2.285 * 2 * Math.PI * 39)
const CUTOFF = 0.5465 / 2 ** (1 / 32) - WIDTH / 2

function between(side: Float32Array, position: number, rate: number): number {
  const place = Math.max(0, 32 * Math.log2(rate))
  const table = Math.floor(place)
  const share = Math.max(0, (place - table - 0.85) / 0.15)
  const one = readThrough(side, position, table)
  return share === 0 ? one : one + share * (readThrough(side, position, table + 1) - one)
}

const rows: Float64Array[] = []

/** Windowed sincs for 512 places between two samples, and straight from one to the next. */
function readThrough(side: Float32Array, position: number, table: number): number {
  const whole = Math.floor(position)
  const place = (position - whole) * 512
  const row = Math.floor(place)
  const [here, next] = [rowOf(table, row), rowOf(table, row + 1)]
  const first = whole - here.length / 2 + 1
  let sum = 0
  for (let j = 0; j < here.length; j++) {
    const sample = first + j >= 0 && first + j < side.length ? side[first + j] : 0
    sum += sample * (here[j] + (place - row) * (next[j] - here[j]))
  }
  return sum
}

function rowOf(table: number, row: number): Float64Array {
  const known = rows[table * 513 + row]
  if (known) return known
  const taps = 4 * Math.ceil(10 * 2 ** (table / 32) - 1e-9)
  const cutoff = CUTOFF / 2 ** (table / 32)
  const beta = 0.1102 * (100 - 8.7)
  const numbers = Float64Array.from({ length: taps }, (_, tap) => {
    const time = tap - (taps / 2 - 1) - row / 512
    const share = Math.min(1, Math.abs(time) / (taps / 2))
    const angle = 2 * Math.PI * cutoff * time
    return (bessel(beta * Math.sqrt(1 - share * share)) / bessel(beta)) * (angle === 0 ? 1 : Math.sin(angle) / angle) * (share < 1 ? 1 : 0)
  })
  const sum = numbers.reduce((all, one) => all + one, 0)
  const made = numbers.map((number) => number / sum)
  rows[table * 513 + row] = made
  return made
}
