/** @jest-environment node */
import FFT from 'fft.js'

import { seeded } from '../../../kit/builders'
import type { AudioHash } from '../../../kit/ids'
import { anInsert, click, throughEffects } from '../../testing/through-effects'

const RATE = 48000
const energyOf = (samples: Float32Array) => samples.reduce((sum, one) => sum + one * one, 0)
const wide = { lowPassHz: 24000, highPassHz: 10 }

test('an echo comes on its very frame, again and again, softer by its feedback; in beats of the tempo too', () => {
  for (const [values, choices, tempoBpm, frames] of [
    [{ seconds: 0.0731 }, {}, 120, 3509],
    [{ beats: 0.75 }, { time: 'beats' }, 97.3, Math.round((0.75 * 60 * RATE) / 97.3)],
    [{ seconds: 0.001 }, {}, 120, 48],
  ] as const) {
    const insert = anInsert('echo', { ...wide, feedback: 0.5, mix: 1, ...values }, { choices })
    const [left] = throughEffects([click(10, 0.5), click(10, 0.5)], { inserts: [insert], frames: 4 * frames + 10, tempoBpm })
    for (let time = 1; time <= 4; time++) {
      const around = left.subarray(time * frames - 5, time * frames + 6).map(Math.abs)
      expect([frames, time, around.indexOf(Math.max(...around))]).toEqual([frames, time, 5])
      expect(left[time * frames] / left[(time - 1) * frames || frames]).toBeCloseTo(time === 1 ? 1 : 0.485, 1)
    }
    expect(left.subarray(0, frames).every((sample) => sample === 0)).toBe(true)
  }
})

test('to and fro it begins on the left and changes sides', () => {
  const insert = anInsert('echo', { ...wide, seconds: 0.01, feedback: 0.6, toAndFro: 1, mix: 1 })
  const [left, right] = throughEffects([click(10, 0.5), click(10, 0.5)], { inserts: [insert], frames: 3000 })
  const sides = [1, 2, 3, 4].map((time) => (Math.abs(left[480 * time]) > 10 * Math.abs(right[480 * time]) ? 'left' : 'right'))
  expect(sides).toEqual(['left', 'right', 'left', 'right'])
})

test('its filters soften every echo more', () => {
  const insert = anInsert('echo', { seconds: 0.05, feedback: 0.9, mix: 1, lowPassHz: 2000 })
  const [left] = throughEffects([click(10), click(10)], { inserts: [insert], frames: 4 * 2400 })
  const brightness = [1, 2, 3].map((time) => {
    const echo = left.slice(2400 * time, 2400 * time + 1000)
    return energyOf(echo.map((one, i) => (i === 0 ? one : one - echo[i - 1]))) / energyOf(echo)
  })
  expect(brightness[1]).toBeLessThan(0.7 * brightness[0])
  expect(brightness[2]).toBeLessThan(0.9 * brightness[1])
})

type ReverbValues = Partial<Record<'size' | 'decaySeconds' | 'decayLow' | 'decayHigh' | 'early' | 'density' | 'beforeSeconds', number>>

function tailOf(kind: string, values: ReverbValues, seconds: number): [Float32Array, Float32Array] {
  const insert = anInsert('reverb', { mix: 1, ...values }, { choices: { kind } })
  return throughEffects([click(10), click(10)], { inserts: [insert], frames: Math.round(seconds * RATE) })
}

/** Seconds in which an octave around `hz` loses 60 dB, by a line through -5 to -35 dB of its energy yet to come (M. R. Schroeder, 1965), over both sides. */
function decayAt(sides: readonly Float32Array[], hz: number): number {
  const left = new Float64Array(sides[0].length + 1)
  for (const side of sides) {
    const band = octave(side, hz)
    let sum = 0
    for (let i = band.length - 1; i >= 0; i--) left[i] += sum += band[i] ** 2
  }
  const points: [number, number][] = []
  for (let i = 0; i < left.length; i += 24) {
    const db = 10 * Math.log10(left[i] / left[0])
    if (db < -5 && db > -35) points.push([i / RATE, db])
  }
  const mean = (place: 0 | 1) => points.reduce((sum, point) => sum + point[place], 0) / points.length
  const [t, d] = [mean(0), mean(1)]
  return (-60 * points.reduce((sum, [one]) => sum + (one - t) ** 2, 0)) / points.reduce((sum, [one, db]) => sum + (one - t) * (db - d), 0)
}

function octave(samples: Float32Array, hz: number): Float64Array {
  let out = Float64Array.from(samples)
  const w = (2 * Math.PI * hz) / RATE
  const alpha = Math.sin(w) / 2 / 1.4
  const [b, a1, a2] = [alpha / (1 + alpha), (-2 * Math.cos(w)) / (1 + alpha), (1 - alpha) / (1 + alpha)]
  for (let pass = 0; pass < 3; pass++) {
    let [x1, x2, y1, y2] = [0, 0, 0, 0]
    out = out.map((x) => {
      const y = b * (x - x2) - a1 * y1 - a2 * y2
      ;[x2, x1, y2, y1] = [x1, x, y1, y]
      return y
    })
  }
  return out
}

/** What clicks, so many seconds from each other, became: pieces of both sides, one for each. */
function tailsOf(kind: string, values: ReverbValues, apart: number, times: number): Float32Array[] {
  const frames = Math.round(apart * RATE)
  const clicks = new Float32Array(frames * times)
  for (let i = 0; i < times; i++) clicks[i * frames] = 1
  const sides = throughEffects([clicks, clicks], {
    inserts: [anInsert('reverb', { mix: 1, ...values }, { choices: { kind } })],
    frames: frames * times,
  })
  return sides.flatMap((side) => Array.from({ length: times }, (_, i) => side.slice(i * frames, (i + 1) * frames)))
}

test('a reverb decays in each range of frequencies in the time that is set, within 5 % over six clicks', () => {
  for (const kind of ['room', 'hall', 'plate'])
    for (const [size, decaySeconds, decayLow, decayHigh] of [
      [1, 1.1, 1.7, 0.4],
      [0.6, 0.9, 0.8, 1],
    ]) {
      // Its lines turn slowly into each other, so that each click meets another room with the same decay.
      const pieces = tailsOf(kind, { size, decaySeconds, decayLow, decayHigh }, decaySeconds * Math.max(1, decayLow) * 0.9, 6)
      const low = [50, 70, 100].reduce((sum, hz) => sum + decayAt(pieces, hz), 0) / 3
      const found = [
        low / (decaySeconds * decayLow),
        decayAt(pieces, 1000) / decaySeconds,
        decayAt(pieces, 10000) / (decaySeconds * decayHigh),
      ]
      expect([kind, size, found.map((share) => Math.abs(share - 1) < 0.05)]).toEqual([kind, size, [true, true, true]])
    }
})

/** When what is louder than its own deviation is nine tenths as often as in noise (J. S. Abel, P. Huang, "A simple, robust measure of reverberation echo density", AES 2006), ms. */
function denseAfterMs(samples: Float32Array): number {
  const half = 480
  for (let middle = half; middle < samples.length - half; middle += 24) {
    const around = samples.subarray(middle - half, middle + half)
    const deviation = Math.sqrt(energyOf(around) / around.length)
    if (around.filter((one) => Math.abs(one) > deviation).length / around.length / 0.3173 >= 0.9) return (1000 * middle) / RATE
  }
  return Infinity
}

test('it is dense within 80 ms, and each side is another', () => {
  for (const kind of ['room', 'hall', 'plate'])
    for (const values of [{}, { decaySeconds: 4 }, { early: 1 }, { size: 0.5 }]) {
      const [left, right] = tailOf(kind, { beforeSeconds: 0, ...values }, 0.5)
      expect([kind, values, denseAfterMs(left) <= 80, denseAfterMs(right) <= 80]).toEqual([kind, values, true, true])
      const alike = left.reduce((sum, one, i) => sum + one * right[i], 0) / Math.sqrt(energyOf(left) * energyOf(right))
      expect(Math.abs(alike)).toBeLessThan(0.2)
    }
})

test('no tone rings out of it: its late spectrum is spread as that of noise that dies away', () => {
  const size = 32768
  const spread = (samples: Float32Array, from: number) => {
    const fft = new FFT(size)
    const bins = fft.createComplexArray()
    fft.realTransform(bins, samples.subarray(from, from + size))
    const powers: number[] = []
    for (let bin = Math.round((200 * size) / RATE); bin < (4000 * size) / RATE; bin++)
      powers.push(bins[2 * bin] ** 2 + bins[2 * bin + 1] ** 2)
    const third = Math.floor(powers.length / 24)
    // The loudest bin of each stretch against the stretch: in noise about ln(n) + 0.58, a tone stands far above.
    return Math.max(...Array.from({ length: 24 }, (_, i) => powers.slice(i * third, (i + 1) * third)).map((part) => Math.max(...part) / (part.reduce((sum, one) => sum + one, 0) / part.length))) // prettier-ignore
  }
  const inNoise = Array.from({ length: 6 }, (_, seed) => {
    const random = seeded(31 + seed)
    return spread(
      Float32Array.from({ length: size }, (_, i) => (random() + random() + random() - 1.5) * 10 ** ((-3 * i) / (3 * RATE))),
      0,
    )
  })
  const usual = inNoise.reduce((sum, one) => sum + one, 0) / inNoise.length
  for (const kind of ['room', 'hall', 'plate']) {
    const [left] = tailOf(kind, { decaySeconds: 3, decayHigh: 1 }, 3)
    const share = spread(left, RATE) / usual
    expect([kind, share < 2 ? 'spread' : share]).toEqual([kind, 'spread'])
  }
})

test('a reverb is as loud however long it is, and what is silent before it is as long as is set', () => {
  for (const kind of ['room', 'hall', 'plate'])
    for (const decaySeconds of [0.5, 1.5, 5]) {
      const [left] = tailOf(kind, { decaySeconds, early: 0, beforeSeconds: 0.05 }, decaySeconds)
      expect(Math.abs(10 * Math.log10(energyOf(left)))).toBeLessThan(5)
      expect(left.subarray(0, 2400).every((one) => one === 0)).toBe(true)
      expect(energyOf(left.subarray(2400, 4800))).toBeGreaterThan(0)
    }
})

const IMPULSE = 'd'.repeat(64) as AudioHash

/** A room of one's own, from a seed. */
function ownRoom(frames: number, channels: number, seed: number) {
  const random = seeded(seed)
  return Array.from({ length: channels }, () =>
    Float32Array.from({ length: frames }, (_, i) => (2 * random() - 1) * Math.exp((-5 * i) / frames)),
  )
}

test('a recorded room is its impulse to the sample, at once, of any length, of one channel or two', () => {
  for (const [frames, channels, block] of [
    [100, 1, 512],
    [1000, 2, 128],
    [2047, 2, 77],
    [2049, 1, 512],
    [30011, 2, 300],
    [70000, 2, 4096],
  ]) {
    const impulse = ownRoom(frames, channels, frames)
    const impulses = new Map([[IMPULSE, { sampleRateHz: RATE, channels: impulse }]])
    const sound = ownRoom(900, 2, 5)
    const out = throughEffects(sound, {
      inserts: [anInsert('room', { mix: 1 }, { audio: IMPULSE })],
      impulses,
      frames: frames + 1000,
      block,
    })
    const power = impulse.reduce((sum, side) => sum + energyOf(side), 0) / channels
    let [error, all] = [0, 0]
    for (let side = 0; side < 2; side++)
      for (let at = 0; at < frames + 900; at += 97) {
        let wanted = 0
        for (let k = Math.max(0, at - frames + 1); k < Math.min(900, at + 1); k++)
          wanted += sound[side][k] * impulse[Math.min(side, channels - 1)][at - k]
        error += (out[side][at] - wanted / Math.sqrt(power)) ** 2
        all += wanted ** 2 / power
      }
    expect([frames, 10 * Math.log10(error / all) < -110]).toEqual([frames, true])
  }
})

test('near and far part a room; its decay is scaled; an impulse at another rate sounds as long', () => {
  const impulse = ownRoom(48000, 2, 8)
  const through = (values: Record<string, number>, rateHz = RATE) => {
    const impulses = new Map([[IMPULSE, { sampleRateHz: rateHz, channels: impulse }]])
    return throughEffects([click(10), click(10)], {
      inserts: [anInsert('room', { mix: 1, ...values }, { audio: IMPULSE })],
      impulses,
      frames: 120000,
    })[0]
  }
  const early = (samples: Float32Array) => energyOf(samples.subarray(0, 3840)) / energyOf(samples)
  expect(early(through({ near: 1 }))).toBeGreaterThan(0.99)
  expect(early(through({ near: 0 }))).toBeLessThan(0.5 * early(through({})))
  const centre = (samples: Float32Array) => samples.reduce((sum, one, i) => sum + i * one * one, 0) / energyOf(samples)
  expect(centre(through({ decayScale: 0.3 }))).toBeLessThan(0.85 * centre(through({})))
  expect(centre(through({}, 24000)) / centre(through({}))).toBeCloseTo(2, 1)
})

test('a resonator is in tune within a cent and rings as long as is set, on every tone of its chord', () => {
  const tones = [
    [110, 1],
    [987.3, 1],
    [440, 1.4983070768766815],
  ]
  for (const [hz, ratio] of tones) {
    const choices = { chord: ratio === 1 ? 'one' : 'minor' }
    const [left] = throughEffects([click(10), click(10)], {
      inserts: [anInsert('resonator', { hz, decaySeconds: 0.8, mix: 1 }, { choices })],
      frames: 48000,
    })
    const strength = (at: number) => {
      let [re, im] = [0, 0]
      for (let i = 2400; i < 36000; i++) {
        re += left[i] * Math.cos((2 * Math.PI * at * i) / RATE)
        im += left[i] * Math.sin((2 * Math.PI * at * i) / RATE)
      }
      return re * re + im * im
    }
    const tried = Array.from({ length: 81 }, (_, i) => hz * ratio * 2 ** ((i - 40) / 4800))
    const best = tried.reduce((one, other) => (strength(other) > strength(one) ? other : one))
    expect(Math.abs(1200 * Math.log2(best / (hz * ratio)))).toBeLessThan(1)
    if (ratio === 1) expect(decayAt([left], hz)).toBeCloseTo(0.8, 1)
  }
})

test('a string struck in its middle has no even tones', () => {
  const [left] = throughEffects([click(10), click(10)], { inserts: [anInsert('resonator', { hz: 200, position: 0.5, damping: 0, mix: 1, decaySeconds: 2 })], frames: 48000 }) // prettier-ignore
  const strength = (hz: number) =>
    Math.hypot(...[Math.cos, Math.sin].map((wave) => left.reduce((sum, one, i) => sum + one * wave((2 * Math.PI * hz * i) / RATE), 0)))
  expect(strength(400)).toBeLessThan(0.02 * strength(600))
  expect(strength(800)).toBeLessThan(0.02 * strength(1000))
})
