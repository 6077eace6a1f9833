/** @jest-environment node */
import FFT from 'fft.js'

import { seeded } from '../../../kit/builders'
import type { Insert } from '../../../kit/kit'
import { lookAheadFrames, masterDelayFrames } from '../../program/effects/look-ahead'
import { anInsert, click, KEY_BUS, sine, throughEffects } from '../../testing/through-effects'

const RATE = 48000
const toDb = (level: number) => 20 * Math.log10(level + 1e-30)
const peakOf = (samples: Float32Array, from = 0, to = samples.length) => samples.subarray(from, to).reduce((peak, one) => Math.max(peak, Math.abs(one)), 0) // prettier-ignore

/** Magnitudes of what a click of 1 became, dB, at a frequency in Hz. */
function responseOf(inserts: readonly Insert[], frames = 65536): (hz: number) => number {
  const [left] = throughEffects([click(10), click(10)], { inserts, frames })
  const fft = new FFT(frames)
  const bins = fft.createComplexArray()
  fft.realTransform(bins, left)
  return (hz) => {
    const bin = Math.round((hz * frames) / RATE)
    return toDb(Math.hypot(bins[2 * bin], bins[2 * bin + 1]))
  }
}

/** An analogue section, dB at `r` times its frequency, written down anew from engine.md's formulas. */
function analogueDb(kind: string, r: number, gainDb: number, damping: number): number {
  const a = 10 ** (gainDb / 40)
  const s = { re: 0, im: r }
  const poly = (p2: number, p1: number, p0: number) => Math.hypot(p0 - p2 * s.im ** 2, p1 * s.im)
  if (kind === 'peak') return toDb(poly(1, a * damping, 1) / poly(1, damping / a, 1))
  if (kind === 'notch') return toDb(poly(1, 0, 1) / poly(1, damping, 1))
  if (kind === 'lowPass') return toDb(1 / poly(1, damping, 1))
  if (kind === 'highPass') return toDb((r * r) / poly(1, damping, 1))
  const root = Math.sqrt(a) * damping
  if (kind === 'lowShelf') return toDb((a * poly(1, root, a)) / poly(a, root, 1))
  return toDb((a * poly(a, root, 1)) / poly(1, root, a))
}

test('the equaliser is within 0.1 dB of analogue sections to 10 kHz and 0.5 dB to 18 kHz, for numbers drawn at random', () => {
  const kinds = ['peak', 'lowShelf', 'highShelf', 'notch', 'lowPass', 'highPass']
  const random = seeded(2026)
  const worst: Record<string, [number, number]> = {}
  for (const kind of kinds)
    for (let round = 0; round < 8; round++) {
      const hz = 40 * 2 ** (8.3 * random())
      const gainDb = kind.length === 4 || kind.endsWith('Shelf') ? 36 * random() - 18 : 0
      const damping = kind === 'peak' || kind === 'notch' ? 0.1 + 1.6 * random() : 0.6 + 0.9 * random()
      const band = 1 + Math.floor(6 * random())
      const values = { [`band${band}Hz`]: hz, [`band${band}Db`]: gainDb, [`band${band}Damping`]: damping }
      const dbAt = responseOf([anInsert('equaliser', values, { choices: { [`band${band}Kind`]: kind } })])
      for (let at = 30; at < 18000; at *= 1.06) {
        const bin = Math.round((at * 65536) / RATE) * (RATE / 65536)
        const wanted = analogueDb(kind, bin / hz, gainDb, damping)
        if (wanted < -40) continue
        const place = at < 10000 ? 0 : 1
        const one = (worst[kind] ??= [0, 0])
        one[place] = Math.max(one[place], Math.abs(dbAt(bin) - wanted))
      }
    }
  expect(Object.entries(worst).filter(([, [low, high]]) => low > 0.1 || high > 0.5)).toEqual([])
  expect(Object.keys(worst)).toEqual(kinds)
})

test('six bands add up, and six equalisers do no more than one after the other', () => {
  const values = { band1Db: 3, band2Db: -4, band3Db: 5, band4Db: -6, band5Db: 2, band6Db: -1 }
  const one = responseOf([anInsert('equaliser', values)], 16384)
  const alone = [1, 2, 3, 4, 5, 6].map((band) => responseOf([anInsert('equaliser', { [`band${band}Db`]: values[`band${band}Db` as keyof typeof values] })], 16384)) // prettier-ignore
  for (const hz of [60, 160, 500, 1500, 4000, 10000])
    expect(one(hz)).toBeCloseTo(
      alone.reduce((sum, dbAt) => sum + dbAt(hz), 0),
      2,
    )
})

/** Threshold, ratio and knee as Giannoulis, Massberg and Reiss give them (equation 4), in dB. */
function curve(db: number, threshold: number, ratio: number, knee: number): number {
  if (2 * (db - threshold) < -knee) return db
  if (2 * Math.abs(db - threshold) <= knee) return db + ((1 / ratio - 1) * (db - threshold + knee / 2) ** 2) / (2 * knee)
  return threshold + (db - threshold) / ratio
}

test('the compressor follows its static curve within 0.1 dB, for tones of 50 Hz to 10 kHz and numbers drawn at random', () => {
  const random = seeded(5)
  for (let round = 0; round < 24; round++) {
    const [threshold, ratio, knee, makeUp] = [-50 + 40 * random(), 1 + 19 * random() ** 2, 20 * random(), 12 * random() - 6]
    const db = -50 + 49 * random()
    const hz = 50 * 200 ** random()
    const tone = sine(RATE, hz, 10 ** (db / 20))
    const values = { threshold1Db: threshold, ratio1: ratio, kneeDb: knee, makeUp1Db: makeUp, attack1Seconds: 0.02 * random(), release1Seconds: 0.05 + 0.1 * random() } // prettier-ignore
    const [left] = throughEffects([tone, tone], { inserts: [anInsert('compressor', values)], frames: RATE })
    expect(Math.abs(toDb(peakOf(left, RATE / 2)) - curve(db, threshold, ratio, knee) - makeUp)).toBeLessThan(0.1)
  }
})

test('its attack and release take the time that is set, its key is another bus, its share is mixed', () => {
  const step = new Float32Array(RATE).map((_, i) => (i < 12000 ? 0.01 : i < 24000 ? 1 : 0.01))
  const settings = { threshold1Db: -20, ratio1: 100, kneeDb: 0, attack1Seconds: 0.03, release1Seconds: 0.1 }
  const [left] = throughEffects([step, step], { inserts: [anInsert('compressor', settings)], frames: RATE })
  const lowered = (frame: number) => toDb(step[frame]) - toDb(left[frame])
  const whole = 20 * 0.99
  expect(lowered(12000 + 1440 - 1)).toBeCloseTo(whole * (1 - Math.exp(-1)), 1) // all but 1/e after the attack
  const letGo = 24000 + 480 // 10 ms are held
  const before = lowered(letGo)
  expect(lowered(letGo + 240 + 4800) / before).toBeGreaterThan(Math.exp(-1) * 0.9)
  expect(lowered(letGo + 240 + 4800) / before).toBeLessThan(Math.exp(-1) * 1.12)
  const quiet = new Float32Array(RATE).fill(0.05)
  const keyed = anInsert('compressor', settings, { key: KEY_BUS })
  const [ducked] = throughEffects([quiet, quiet], { inserts: [keyed], frames: RATE, key: [step, step] })
  expect(toDb(ducked[23999]) - toDb(0.05)).toBeCloseTo(-whole, 1)
  expect(ducked[11999]).toBeCloseTo(0.05, 5)
  const half = anInsert('compressor', { ...settings, mix: 0.5 })
  const [mixed] = throughEffects([step, step], { inserts: [half], frames: 24000 })
  expect(mixed[23999]).toBeCloseTo((1 + 10 ** (-whole / 20)) / 2, 3)
})

test('frequency ranges that do nothing add up flat within 0.05 dB, and each is lowered alone', () => {
  for (const ranges of ['2', '3']) {
    const idle = anInsert('compressor', { threshold1Db: 0, threshold2Db: 0, threshold3Db: 0 }, { choices: { ranges } })
    const dbAt = responseOf([idle], 16384)
    for (let hz = 40; hz < 20000; hz *= 1.3) expect(Math.abs(dbAt(hz))).toBeLessThan(0.05)
  }
  const values = { threshold1Db: -40, ratio1: 100, kneeDb: 0, threshold2Db: 0, threshold3Db: 0, split1Hz: 300, split2Hz: 3000 }
  for (const [hz, isLowered] of [
    [60, true],
    [1000, false],
    [9000, false],
  ] as const) {
    const tone = sine(RATE, hz, 0.5)
    const [left] = throughEffects([tone, tone], { inserts: [anInsert('compressor', values, { choices: { ranges: '3' } })], frames: RATE })
    const change = toDb(peakOf(left, RATE / 2)) - toDb(0.5)
    expect([hz, isLowered ? change < -30 : Math.abs(change) < 0.3]).toEqual([hz, true])
  }
})

test('the gate opens within its attack, holds, closes by equal dB, and does not flutter at its threshold', () => {
  const level = (db: number) => 10 ** (db / 20)
  const burst = new Float32Array(RATE).map((_, i) => (i >= 4800 && i < 9600 ? level(-10) : level(-60)))
  const values = { thresholdDb: -30, rangeDb: -40, attackSeconds: 0.002, holdSeconds: 0.05, releaseSeconds: 0.2 }
  const [left] = throughEffects([burst, burst], { inserts: [anInsert('gate', values)], frames: RATE })
  const shut = (frame: number) => toDb(left[frame]) - toDb(burst[frame])
  expect(shut(4799)).toBeCloseTo(-40, 3)
  expect(shut(4800 + 96)).toBeCloseTo(0, 6)
  const fallen = 9600 + 480 + 2400 // the level is held 10 ms, then falls through the threshold, then it holds
  expect(shut(fallen)).toBe(0)
  const [half] = [...left.keys()].filter((frame) => frame > fallen && shut(frame) < -20)
  const [begins] = [...left.keys()].filter((frame) => frame > fallen && shut(frame) < 0)
  expect((half - begins) / RATE).toBeCloseTo(0.1, 3)
  const wobble = new Float32Array(RATE).map((_, i) => level(-30 + 1.5 * Math.sin(i / 400)))
  const [steady] = throughEffects([wobble, wobble], { inserts: [anInsert('gate', { ...values, holdSeconds: 0 })], frames: RATE })
  expect([...steady.subarray(RATE / 2)].every((sample, i) => sample === wobble[RATE / 2 + i])).toBe(true)
})

/** The highest that a band-limited wave reaches, by sixteen samples for one from its spectrum. */
function truePeak(samples: Float32Array): number {
  const size = 32768
  const fft = new FFT(size)
  const bins = fft.createComplexArray()
  fft.realTransform(bins, samples.subarray(0, size))
  const wide = new FFT(size * 16)
  const more = wide.createComplexArray().fill(0)
  for (let i = 0; i <= size; i++) more[i] = bins[i]
  for (let bin = 1; bin < size / 2; bin++) {
    more[2 * (16 * size - bin)] = bins[2 * bin]
    more[2 * (16 * size - bin) + 1] = -bins[2 * bin + 1]
  }
  const out = wide.createComplexArray()
  wide.inverseTransform(out, more)
  let peak = 0
  for (let i = 4000 * 16; i < (size - 4000) * 16; i++) peak = Math.max(peak, Math.abs(out[2 * i] * 16))
  return peak
}

test('the limiter of the master holds true peaks within 0.2 dB of its ceiling, and comes later by what is said', () => {
  const frames = 34000
  const random = seeded(12)
  const parts = Array.from({ length: 9 }, () => sine(frames, 100 * 190 ** random(), 0.5))
  const mix = parts[0].map((_, i) => parts.reduce((sum, part) => sum + part[i], 0))
  const between = Float32Array.from({ length: frames }, (_, i) => 1.4 * Math.sin(2 * Math.PI * 0.25 * i + Math.PI / 4)) // its peaks lie between
  for (const [sound, ceilingDb] of [
    [mix, -1],
    [mix, -14],
    [between, -3],
  ] as const) {
    const limiter = anInsert('limiter', { ceiling1Db: ceilingDb })
    const [left] = throughEffects([sound, sound], { ofMaster: [limiter], frames })
    const over = toDb(truePeak(left)) - ceilingDb
    expect(over).toBeLessThan(0.2)
    expect(over).toBeGreaterThan(sound === mix ? -0.6 : -0.2)
  }
  const soft = mix.map((one) => one * 0.05)
  const kit = { inserts: [anInsert('limiter'), anInsert('limiter', {}, { bypass: true })] }
  const delay = masterDelayFrames(kit, RATE)
  expect(delay).toBe(lookAheadFrames(RATE))
  const [late] = throughEffects([soft, soft], { ofMaster: kit.inserts.slice(0, 1), frames })
  const [plain] = throughEffects([soft, soft], { frames })
  expect(late.slice(delay)).toEqual(plain.slice(0, frames - delay))
  expect(peakOf(late, 0, delay)).toBe(0)
})

test('the limiter of a bus comes no later, and no sample passes its ceiling', () => {
  const sound = sine(20000, 700, 0.9)
  const [left] = throughEffects([sound, sound], { inserts: [anInsert('limiter', { ceiling1Db: -9, releaseSeconds: 0.05 })], frames: 20000 })
  expect(peakOf(left)).toBeLessThanOrEqual(10 ** (-9 / 20) + 1e-7)
  expect(peakOf(left, 10000)).toBeGreaterThan(10 ** (-9.3 / 20))
  const [clicked] = throughEffects([click(10, 0.1)], { inserts: [anInsert('limiter')], frames: 100 })
  expect(clicked[0]).toBeGreaterThan(0)
})

test('width keeps the middle; one channel below a frequency has no difference there and all of it above', () => {
  const inserts = [anInsert('width', { width: 1.5, monoBelowHz: 200 })]
  for (const [hz, share] of [
    [30, 0],
    [4000, 1.5],
  ] as const) {
    const tone = sine(RATE, hz, 0.4)
    const [left, right] = throughEffects([tone, tone.map((one) => -one)], { inserts, frames: RATE })
    expect(peakOf(left, RATE / 2) / peakOf(tone)).toBeCloseTo(share, 1)
    expect(
      peakOf(
        left.map((one, i) => one + right[i]),
        RATE / 2,
      ),
    ).toBeLessThan(1e-5)
  }
})

test('drive, mixed, comes with what goes beside it', () => {
  const [left] = throughEffects([click(10, 0.01)], { inserts: [anInsert('drive', { driveDb: 6, mix: 0.5 })], frames: 100 })
  const highest = left.indexOf(Math.max(...left))
  expect(highest).toBe(16)
  expect(left[16]).toBeGreaterThan(1.2 * left[15])
})
