import { seeded } from '../kit/builders'
import { strikesWithin } from '../slices/find'
import { heardStrikes } from './cut'
import { findHits } from './onsets'
import { attacksOf } from './settings'
import { afterSmear } from './smear'
import { startNear } from './start-odds'

const RATE = 48000
const LEAD = 0.1

interface Burst {
  readonly at: number
  readonly level: number
  readonly ring: number
  readonly hz?: number
}

/** Noise, or a tone, that begins at once and dies away, in digital silence or a quiet room. */
function strikes(seconds: number, bursts: readonly Burst[], room: number, random: () => number): Float32Array {
  const out = Float32Array.from({ length: Math.round(seconds * RATE) }, () => room * (2 * random() - 1))
  for (const { at, level, ring, hz } of bursts)
    for (let i = Math.round(at * RATE), n = 0; i < out.length; i++, n++)
      out[i] += level * Math.exp(-n / (ring * RATE)) * (hz ? Math.cos((2 * Math.PI * hz * n) / RATE) : 2 * random() - 1)
  return out
}

/**
 * As a codec leaves it: a modified discrete cosine transform under a sine window (Princen, Johnson and Bradley 1987), its
 * numbers rounded to steps of the same size through each frame, which spreads what is lost over all of it.
 */
function coded(samples: Float32Array, half: number, lossDb: number): Float32Array {
  const out = new Float32Array(samples.length)
  const window = Float64Array.from({ length: 2 * half }, (_, n) => Math.sin((Math.PI * (n + 0.5)) / (2 * half)))
  const turn = Float64Array.from({ length: 8 * half }, (_, i) => Math.cos((Math.PI * i) / (4 * half)))
  const wave = (n: number, k: number) => turn[((2 * n + 1 + half) * (2 * k + 1)) % (8 * half)]!
  for (let from = -half; from < samples.length; from += half) {
    const numbers = Float64Array.from({ length: half }, (_, k) => {
      let sum = 0
      for (let n = 0; n < 2 * half; n++) sum += window[n]! * (samples[from + n] ?? 0) * wave(n, k)
      return sum
    })
    const step = Math.sqrt((12 * numbers.reduce((sum, one) => sum + one * one, 0)) / half) * 10 ** (-lossDb / 20)
    if (step === 0) continue
    for (let n = Math.max(0, -from); n < 2 * half && from + n < out.length; n++) {
      let sum = 0
      for (let k = 0; k < half; k++) sum += Math.round(numbers[k]! / step) * step * wave(n, k)
      out[from + n] += (2 / half) * window[n]! * sum
    }
  }
  return out
}

/** A burst somewhere in the frames of a codec, tone or noise. */
function drawn(random: () => number): { burst: Burst; sounds: Float32Array } {
  const burst = { at: LEAD + 0.02 * random(), level: 0.2 + 0.6 * random(), ring: 0.01 + 0.05 * random(), ...(random() < 0.5 ? { hz: 200 * 20 ** random() } : {}) } // prettier-ignore
  return { burst, sounds: strikes(0.16, [burst], random() < 0.5 ? 0 : 3e-5, random) }
}

test('what a codec spreads before a stroke is no part of it', () => {
  const random = seeded(11)
  const offs = Array.from({ length: 16 }, (_, i) => {
    const { burst, sounds } = drawn(random)
    const heard = coded(sounds, [192, 288][i % 2]!, 30 + 8 * random())
    const at = Math.round(burst.at * RATE)
    const start = startNear(heard, RATE, at)
    return { before: Math.abs(start - at) / RATE, after: Math.abs(afterSmear(heard, RATE, start) - at) / RATE }
  })
  expect(offs.filter(({ after }) => after < 0.001).length).toBeGreaterThanOrEqual(15)
  expect(offs.filter(({ before }) => before < 0.001).length).toBeLessThan(8) // there was something to leave out
})

test('a recording that is said to be coded is cut at its strokes, and any other one as it sounds', () => {
  const random = seeded(15)
  const at = 0.5
  const sounds = strikes(0.8, [{ at, level: 0.7, ring: 0.03 }], 3e-5, random)
  const heard = Float32Array.from(sounds)
  heard.set(coded(sounds.subarray(0.4 * RATE, 0.6 * RATE), 288, 33), 0.4 * RATE)
  const audio = { sampleRateHz: RATE, channels: [heard] }
  const hits = (isCoded: boolean) => findHits(heard, RATE, heardStrikes(heard, RATE, { isCoded }).strikes).map(({ frame }) => frame / RATE)
  const attacks = (isCoded: boolean) => attacksOf(heard, RATE, heardStrikes(heard, RATE, { isCoded })).map(({ frame }) => frame / RATE)
  const slices = (isCoded: boolean) => strikesWithin(audio, { startFrame: 0, endFrame: heard.length }, isCoded).map((frame) => frame / RATE)
  for (const begins of [hits, attacks, slices]) {
    expect(begins(true)).toHaveLength(1)
    expect(Math.abs(begins(true)[0]! - at)).toBeLessThan(begins === slices ? 0.003 : 0.0005) // a slice has room for its attack
    expect(begins(false)[0]).toBeLessThan(Math.min(begins(true)[0]!, at) - 0.0015)
  }
})

test('what was never coded begins where it did', () => {
  const random = seeded(12)
  for (let run = 0; run < 40; run++) {
    const { burst, sounds } = drawn(random)
    const start = startNear(sounds, RATE, Math.round(burst.at * RATE))
    expect(afterSmear(sounds, RATE, start)).toBe(start)
  }
})

test('what touches before the stroke and dies away stays its begin', () => {
  const random = seeded(13)
  for (let run = 0; run < 20; run++) {
    const [touch, stroke] = [LEAD, LEAD + 0.006 + 0.012 * random()]
    const sounds = strikes(0.2, [{ at: touch, level: 0.02, ring: 0.012 }, { at: stroke, level: 0.8, ring: 0.04 }], 1e-5, random) // prettier-ignore
    const start = Math.round(touch * RATE)
    expect(afterSmear(sounds, RATE, start)).toBe(start)
  }
})

test('whatever is heard and wherever it is asked, the answer is a frame from the start on, near it', () => {
  const random = seeded(14)
  for (let run = 0; run < 200; run++) {
    const rate = [8000, 44100, 96000, 192000][run % 4]!
    const length = 1 + Math.floor(0.05 * rate * random())
    const sounds = Float32Array.from({ length }, () => (run % 3 === 0 ? 0 : (2 * random() - 1) * (random() < 0.02 ? 1 : 0.01)))
    const start = Math.floor(random() * length)
    const stroke = afterSmear(sounds, rate, start)
    expect(Number.isInteger(stroke) && stroke >= start && stroke < length && stroke <= start + 0.025 * rate).toBe(true)
    if (run % 3 === 0) expect(stroke).toBe(start)
  }
})
