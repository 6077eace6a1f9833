import { seeded } from '../kit/builders'
import { cutRecording } from './cut'
import { gridFrames, gridMoves, tempoInName, tempoOf } from './grid'
import { evenGains } from './levels'
import { zeroCrossing } from './snap'
import { spectrogramOf } from './spectrogram'

const RATE = 48000

test('grids cut equal parts, or beats from the first beat on', () => {
  expect(gridFrames({ kind: 'parts', count: 4 }, 1000, RATE)).toEqual([0, 250, 500, 750])
  const beats = gridFrames({ kind: 'beats', tempoBpm: 120, firstSeconds: 0.25, beats: 0.5 }, RATE, RATE)
  expect(beats).toEqual([12000, 24000, 36000])
})

/** A played loop: strikes off their beats by up to 25 ms, each with a ring of its own, over a little noise. */
function playedLoop(seed: number) {
  const random = seeded(seed)
  const bpm = 80 + Math.floor(random() * 80)
  const step = 30 / bpm
  const seconds = 16 * step
  const samples = Float32Array.from({ length: Math.round((seconds + 0.3) * RATE) }, () => 0.0004 * (random() * 2 - 1))
  const strikes: number[] = []
  for (let i = 0; i < 16; i++) {
    if (i % 4 !== 0 && random() < 0.3) continue
    const at = Math.max(0, Math.round((i * step + (i === 0 ? 0 : (random() - 0.5) * 0.05)) * RATE))
    const [hz, decay, level] = [120 + 3000 * random() ** 2, 0.01 + 0.05 * random(), 0.2 + 0.6 * random()]
    strikes.push(at)
    for (let k = 0; k < 0.4 * RATE && at + k < samples.length; k++)
      samples[at + k] += level * Math.exp(-k / (decay * RATE)) * (0.7 * Math.cos((2 * Math.PI * hz * k) / RATE) + 0.3 * (random() * 2 - 1))
  }
  return { bpm, samples, strikes }
}

test('no slice of a played loop begins after its strike, none carries the beginning of the next, and none is a hole', () => {
  let off = 0
  for (let seed = 1; seed <= 12; seed++) {
    const { bpm, samples, strikes } = playedLoop(seed)
    const grid = { kind: 'beats' as const, tempoBpm: bpm, firstSeconds: 0, beats: 0.5 }
    const hits = cutRecording({ sampleRateHz: RATE, channels: [samples] }, { waterLine: 0.3, minGapSeconds: 0.06, grid })
    hits.slice(1).forEach((hit, i) => expect(hits[i].endFrame).toBe(hit.startFrame)) // they touch
    for (const strike of strikes) {
      const slice = hits.find((hit) => Math.abs(hit.onsetFrame - strike) < 0.03 * RATE)!
      const late = (slice.startFrame - strike) / RATE
      expect([seed, strike, late <= 0]).toEqual([seed, strike, true])
      if (late < -0.003) off++ // begins long before: the slice before it ends early, which is heard less
    }
    const moves = gridMoves(hits.map(({ onsetFrame, gridFrame }) => ({ frame: onsetFrame, gridFrame })), RATE)! // prettier-ignore
    expect(moves.mostSeconds).toBeLessThan(0.03)
    const stay = cutRecording({ sampleRateHz: RATE, channels: [samples] }, { waterLine: 0.3, minGapSeconds: 0.06, grid, marksStay: true })
    expect(stay.map(({ startFrame }) => startFrame)).toEqual(gridFrames(grid, samples.length, RATE))
  }
  expect(off).toBeLessThanOrEqual(3)
})

test('the tempo of strikes on a grid of beats and half beats is found, and none of strikes at random', () => {
  for (const bpm of [72, 96, 120.5, 168]) {
    const beat = 60 / bpm
    const strikes = Array.from({ length: 48 }, (_, i) => ({
      seconds: 0.4 + (i * beat) / 2 + 0.004 * Math.sin(i * 9),
      strength: i % 2 ? 0.4 : 0.8,
    }))
    const tempo = tempoOf(strikes)!
    const octave = Math.round(Math.log2(tempo.bpm / bpm)) // half and twice are as true
    expect(Math.abs(tempo.bpm / 2 ** octave - bpm)).toBeLessThan(0.3)
    expect(Math.abs((((((tempo.firstSeconds - 0.4) / (beat / 2 ** Math.max(0, octave)) + 0.5) % 1) + 1) % 1) - 0.5)).toBeLessThan(0.03) // on a beat, not between
  }
  let seconds = 0
  const loose = Array.from({ length: 60 }, (_, i) => ({ seconds: (seconds += 0.2 + 0.5 * Math.abs(Math.sin(i * i))), strength: 0.5 }))
  expect(tempoOf(loose)).toBeUndefined()
  expect(tempoOf(loose.slice(0, 3))).toBeUndefined()
})

test('a tempo is read from a name', () => {
  expect(tempoInName('tarps 96bpm.wav')).toBe(96)
  expect(tempoInName('120.5 BPM winch')).toBe(120.5)
  expect(tempoInName('hatch 1996')).toBeUndefined()
  expect(tempoInName('9996bpm')).toBeUndefined()
})

test('levels are evened by a share, and zero crossings found in the direction asked for', () => {
  expect(evenGains([-20, -10, -14], 0)).toEqual([0, 0, 0])
  expect(evenGains([-20, -10, -14], 1)).toEqual([10, 0, 4])
  expect(evenGains([-20, -10, -Infinity], 0.5)).toEqual([5, 0, 0])
  const wave = Float32Array.from({ length: 960 }, (_, i) => Math.sin((2 * Math.PI * (i + 0.5)) / 96))
  expect(zeroCrossing(wave, 100, RATE, 'up')).toBe(96)
  expect(zeroCrossing(wave, 100, RATE, 'down')).toBe(144)
  expect(zeroCrossing(new Float32Array(100).fill(0.5), 50, RATE, 'up')).toBe(50)
})

test('a tone stands in the row of its pitch, and silence is black', () => {
  const tone = Float32Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * 3000 * i) / RATE))
  const [columns, rows] = [4, 90]
  const picture = spectrogramOf(tone, RATE, 0, RATE, columns, rows)
  const column = Array.from({ length: rows }, (_, row) => picture[row * columns + 1])
  const brightest = column.indexOf(Math.max(...column))
  const wanted = rows * (1 - Math.log2(3000 / 40) / Math.log2(RATE / 2 / 40))
  expect(Math.abs(brightest - wanted)).toBeLessThan(2)
  expect(column[brightest]).toBeGreaterThan(250)
  expect(spectrogramOf(new Float32Array(RATE), RATE, 0, RATE, columns, rows).every((value) => value === 0)).toBe(true)
})
