import { bessel, dB, DRIVE_FRAMES, GRID, held, RATE } from './terms'
import type { Sides } from './terms'
import type { Voice } from './voice'

const curves = {
  soft: (a: number, b: number) => mean(a, b, (x) => Math.sqrt(1 + x * x), (x) => x / Math.sqrt(1 + x * x)),
  hard: (a: number, b: number) => mean(a, b, (x) => (Math.abs(x) < 1 ? (x * x) / 2 : Math.abs(x) - 0.5), (x) => held(x, -1, 1)),
  folded: (a: number, b: number) => mean(a, b, (x) => -Math.cos(x), Math.sin),
  uneven: (a: number, b: number) => {
    const leaned = mean(1.6 * a + 0.6, 1.6 * b + 0.6, (x) => Math.sqrt(1 + x * x), (x) => x / Math.sqrt(1 + x * x))
    return ((leaned - 0.6 / Math.sqrt(1.36)) * 1.36 ** 1.5) / 1.6
  },
} // prettier-ignore

function mean(a: number, b: number, area: (x: number) => number, curve: (x: number) => number): number {
  return Math.abs(b - a) < 1e-4 ? curve((a + b) / 2) : (area(b) - area(a)) / (b - a)
}

const kaiser = (taps: number, cutoff: number, beta: number) => {
  const numbers = Array.from({ length: taps }, (_, i) => {
    const x = i - (taps - 1) / 2
    const angle = 2 * Math.PI * cutoff * x
    return bessel(beta * Math.sqrt(Math.max(0, 1 - (x / ((taps - 1) / 2)) ** 2))) * (angle === 0 ? 1 : Math.sin(angle) / angle)
  })
  const sum = numbers.reduce((all, one) => all + one, 0)
  return numbers.map((number) => number / sum)
}
const UP = kaiser(65, 0.125, 8)
const DOWN = kaiser(64, 0.125, 8)

/** Four samples for one, a curve, and one of four: with no delay, since all of the sound is there. */
export function drive(voice: Voice, name: 'driveDb' | 'driveAfterDb', sides: Sides, late: number): void {
  const { values, choices } = voice.shape
  const isLast = name === 'driveAfterDb' || !(values.driveAfterDb > 0 || voice.movers('driveAfterDb').length > 0)
  const amount = (t: number) => held(values[name] + voice.settled(name) + voice.moved(name, t - late), 0, 60)
  const kept = (t: number) => (isLast ? dB(values.driveLevelDb + voice.settled('driveLevelDb') + voice.moved('driveLevelDb', t - late)) : 1)
  for (const side of sides) {
    const frames = side.length
    const many = new Float64Array(4 * frames + 256)
    for (let t = 0; t < frames; t++) for (let j = 0; j < UP.length; j++) many[4 * t + j + 64] += 4 * UP[j] * side[t]
    const made = new Float64Array(many.length)
    // `many` runs 24 frames ahead of what it stands for: 64 of four before it, 32 of its filter.
    let before = 0
    const gains = straightOver16((at) => dB(amount(at)), frames + 64)
    const mixes = straightOver16((at) => Math.min(1, amount(at) / 6), frames + 64)
    const levels = straightOver16(kept, frames)
    for (let i = 64; i < many.length; i++) {
      const t = Math.floor((i - 64) / 4)
      const mix = mixes[t]
      const given = gains[t] * many[i]
      const straight = (before + given) / 2
      made[i] = straight + mix * (curves[choices.driveKind](before, given) - straight)
      before = given
    }
    const steady = choices.driveKind === 'uneven'
    let [wasIn, wasOut] = [0, 0]
    for (let t = -DRIVE_FRAMES; t < frames - 2 * DRIVE_FRAMES; t++) {
      let sum = 0
      for (let j = 0; j < DOWN.length; j++) sum += DOWN[j] * (made[64 + 4 * (t + DRIVE_FRAMES) - j] ?? 0)
      const out = steady ? sum - wasIn + (1 - (2 * Math.PI * 5) / RATE) * wasOut : sum
      ;[wasIn, wasOut] = [sum, out]
      if (t >= 0) side[t] = out * levels[t + DRIVE_FRAMES]
    }
    side.fill(0, Math.max(0, frames - 2 * DRIVE_FRAMES))
  }
}

/** What is looked at every 16 frames, and straight between. */
function straightOver16(at: (t: number) => number, frames: number): Float64Array {
  const points = Array.from({ length: Math.ceil(frames / GRID) + 1 }, (_, i) => at(GRID * i))
  return Float64Array.from({ length: frames }, (_, t) => {
    const i = Math.floor(t / GRID)
    return points[i] + ((points[i + 1] - points[i]) * (t - GRID * i)) / GRID
  })
}
