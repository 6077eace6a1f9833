import { heldEnvelopeAt } from './envelope'
import { passes } from './filter'
import { dB, held, RATE } from './terms'
import type { Sides } from './terms'
import type { Voice } from './voice'

export function edges(voice: Voice, sides: Sides, positions: Float64Array, endFrame: number): void {
  const { values } = voice.shape
  const seconds = (name: 'fadeInSeconds' | 'fadeOutSeconds' | 'endSeconds') => Math.max(0, values[name] + voice.settled(name))
  const into = seconds('fadeInSeconds') * RATE
  const rateHz = RATE * voice.clipRate
  const out = seconds('fadeOutSeconds') * rateHz
  const end = Math.max(0, voice.sides[0].length - Math.floor(seconds('endSeconds') * rateHz + 0.5))
  for (const side of sides)
    for (let t = 0; t < endFrame; t++) {
      if (t < into) side[t] *= t / into
      if (end - positions[t] < out) side[t] *= Math.max(0, (end - positions[t]) / out)
    }
}

export function shapeTransient(voice: Voice, sides: Sides, late: number): void {
  const db = (name: 'attackDb' | 'tailDb', t: number) =>
    held(voice.shape.values[name] + voice.settled(name) + voice.moved(name, t - late), -24, 24)
  const follow = (seconds: number) => 1 - Math.exp(-1 / (seconds * RATE))
  const [quickUp, quickDown, slowUp, slowDown] = [0.0003, 0.03, 0.025, 0.06].map(follow)
  let [quick, slow, gain, step] = [0, 0, 1, 0]
  for (let t = 0; t < sides[0].length; t++) {
    if (t % 8 === 0) {
      const above = 20 * Math.log10((quick + 1e-6) / (slow + 1e-6))
      const share = t === 0 ? 1 : held((above - 1.5) / 7.5, 0, 1)
      const aim = dB(share * db('attackDb', t) + (1 - share) * db('tailDb', t))
      if (t === 0) gain = aim
      step = (aim - gain) / 8
    }
    const now = Math.max(...sides.map((side) => Math.abs(side[t])))
    quick += (now - quick) * (now > quick ? quickUp : quickDown)
    slow += (quick - slow) * (quick > slow ? slowUp : slowDown)
    for (const side of sides) side[t] *= gain
    gain += step
  }
}

export function crush(voice: Voice, sides: Sides, late: number): void {
  const { values, choices } = voice.shape
  const share = (t: number) => held(values.crush + voice.settled('crush') + voice.moved('crush', t - late), 0, 1)
  const levels = 2 ** (held(values.crushBits + voice.settled('crushBits'), 1, 24) - 1)
  const hz = values.crushRateHz * 2 ** (voice.settled('crushRateHz') / 1200)
  const isFiltered = choices.crushFilter === 'on'
  for (const side of sides) {
    const wet = Float64Array.from(side)
    const smooth = () => passes([wet], 'lowPass', 1, () => 0.45 * hz, () => Math.SQRT2) // prettier-ignore
    if (isFiltered) smooth()
    let [phase, taken] = [1, 0]
    for (let t = 0; t < wet.length; t++) {
      phase += Math.min(1, hz / RATE)
      if (phase >= 1) {
        taken = Math.floor(wet[t] * levels + 0.5) / levels
        phase -= 1
      }
      wet[t] = taken
    }
    if (isFiltered) smooth()
    for (let t = 0; t < side.length; t++) side[t] += share(t) * (wet[t] - side[t])
  }
}

export function widen(voice: Voice, sides: Sides, late: number): void {
  if (sides.length < 2) return
  const [left, right] = sides
  for (let t = 0; t < left.length; t++) {
    const share = held(voice.shape.values.width + voice.settled('width') + voice.moved('width', t - late), 0, 2)
    const [middle, side] = [(left[t] + right[t]) / 2, ((left[t] - right[t]) / 2) * share]
    left[t] = middle + side
    right[t] = middle - side
  }
}

export function level(voice: Voice, sides: Sides, late: number): void {
  const { values, envelopes } = voice.shape
  const scale = voice.decay
  const letGo = voice.settings.mode === 'hold' ? (voice.strike.letGo ?? Infinity) - voice.delay : Infinity
  const points = voice.settings.mode === 'hold' ? envelopes.level : { points: envelopes.level.points }
  for (let t = 0; t < sides[0].length; t++) {
    const share = held(values.levelEnvelope + voice.settled('levelEnvelope') + voice.moved('levelEnvelope', t - late), 0, 1)
    const level = 1 + share * (heldEnvelopeAt(points, t, scale, letGo)! - 1)
    for (const side of sides) side[t] *= level
  }
}
