import { seeded } from '../kit/builders'
import { cutRecording, heardStrikes } from './cut'
import { curveOverLine, levelsOf, strikesOver } from './gestures'
import type { Strikes } from './gestures'
import { lineWords, underLine } from './line-words'
import { findHits } from './onsets'

const RATE = 48000

interface Struck {
  readonly seconds: number
  readonly level: number
}

/** Short bursts of damped noise in a quiet room. */
function recording(struck: readonly Struck[], seconds: number, seed = 1): Float32Array {
  const random = seeded(seed)
  const samples = Float32Array.from({ length: Math.round(seconds * RATE) }, () => 0.0006 * (random() * 2 - 1))
  for (const { seconds: at, level } of struck) {
    const from = Math.round(at * RATE)
    for (let i = 0; i < 0.2 * RATE && from + i < samples.length; i++)
      samples[from + i] += level * Math.exp(-i / (0.02 * RATE)) * (random() * 2 - 1)
  }
  return samples
}

const settings = { waterLine: 0.3, findsLevel: true, minGapSeconds: 0.06 }
const cut = (samples: Float32Array) => cutRecording({ sampleRateHz: RATE, channels: [samples] }, settings)

test('heel and toe are one hit each step, and the toe is a mark inside it that ends nothing', () => {
  for (const seed of [1, 2, 3, 4]) {
    const random = seeded(seed)
    const steps = Array.from({ length: 24 }, (_, i) => ({ seconds: 0.6 + 0.55 * i + 0.04 * random(), level: 0.5 + 0.3 * random() }))
    const toes = steps.map(({ seconds, level }) => ({ seconds: seconds + 0.07 + 0.03 * random(), level: level * (0.15 + 0.2 * random()) }))
    const hits = cut(recording([...steps, ...toes], 15, seed))
    expect(hits.map(({ onsetFrame }) => Math.round(onsetFrame / RATE / 0.55 - 0.6 / 0.55))).toEqual(steps.map((_, i) => i))
    const marked = hits.filter(({ secondFrames }, i) => secondFrames.some((frame) => Math.abs(frame / RATE - toes[i].seconds) < 0.01))
    expect(marked.length).toBeGreaterThan(0.9 * toes.length)
    hits.forEach((hit, i) => expect(hit.endFrame / RATE).toBeGreaterThan(toes[i].seconds + 0.03))
  }
})

test('a roll is as many hits as strokes, and soft strokes far from loud ones stay', () => {
  for (const gap of [0.09, 0.13, 0.25]) {
    const random = seeded(gap * 1000)
    const roll = Array.from({ length: 40 }, (_, i) => ({ seconds: 0.5 + gap * i, level: 0.3 + 0.4 * random() }))
    expect(cut(recording(roll, 1 + 41 * gap))).toHaveLength(40)
  }
  const loudAndSoft = Array.from({ length: 20 }, (_, i) => ({ seconds: 0.5 + 0.8 * i, level: i % 2 === 0 ? 0.7 : 0.02 }))
  expect(cut(recording(loudAndSoft, 17))).toHaveLength(20)
})

test('a flam begins with its first stroke', () => {
  const flams = Array.from({ length: 10 }, (_, i) => [
    { seconds: 0.5 + 0.7 * i, level: 0.35 },
    { seconds: 0.54 + 0.7 * i, level: 0.6 },
  ])
  const hits = cut(recording(flams.flat(), 8))
  expect(hits).toHaveLength(10)
  hits.forEach(({ onsetFrame }, i) => expect(Math.abs(onsetFrame / RATE - (0.5 + 0.7 * i))).toBeLessThan(0.002))
})

/** Heights at random places, as no recording has them. */
function randomStrikes(seed: number): Strikes {
  const random = seeded(seed)
  let hop = 0
  const strikes = Array.from({ length: 3 + Math.floor(random() * 60) }, () => {
    hop += 1 + Math.floor(random() * 90)
    const strength = 0.15 + 0.8 * random()
    return { hop, beginHop: hop, strength, odds: 0, height: strength * (random() < 0.5 ? 1 : random()) }
  })
  return { hopFrames: 64, strikes, line: 0.3 }
}

/** The rule said slowly: from the highest down, each stands unless one within the gap already does. */
function plainOver({ strikes, hopFrames }: Strikes, line: number, gap: number): number[] {
  const kept: number[] = []
  for (const { hop } of [...strikes].sort((a, b) => b.height - a.height))
    if (!kept.some((other) => Math.abs(other - hop) * hopFrames <= gap)) kept.push(hop)
  const heights = new Map(strikes.map(({ hop, height }) => [hop, height]))
  return kept.filter((hop) => heights.get(hop)! >= line).sort((a, b) => a - b)
}

test('whatever the heights, a line shows what the slow rule shows, and each level as many as it says', () => {
  for (let seed = 1; seed <= 300; seed++) {
    const found = randomStrikes(seed)
    const gap = [0, 500, 2880, 9600][seed % 4]
    let before = Infinity
    for (const line of [0, 0.1, 0.25, 0.4, 0.6, 0.9, 1]) {
      const hops = strikesOver(found, line, gap).map(({ hop }) => hop)
      expect(hops).toEqual(plainOver(found, line, gap))
      expect(hops.length).toBeLessThanOrEqual(before)
      before = hops.length
    }
    const levels = levelsOf(found, gap)
    expect(levels.map(({ line }) => strikesOver(found, line, gap).length)).toEqual(levels.map(({ count }) => count))
    expect(levels.map(({ count }) => count)).toEqual([...levels.map(({ count }) => count)].sort((a, b) => a - b))
    const heights = [...plainOver(found, 0, gap)].map((hop) => found.strikes.find((one) => one.hop === hop)!.height).sort((a, b) => b - a)
    const steps = heights.map((height, i) => height - (heights[i + 1] ?? 0))
    const widest = Math.max(...steps)
    if (widest >= 0.012) expect(levels.map(({ count }) => steps[count - 1])).toContain(widest)
    const under = underLine(found, 0.3, gap / RATE, RATE)
    expect(under.hits).toBe(plainOver(found, 0.3, gap).length)
    expect(under.hits + under.aftershocks + under.faint).toBeLessThanOrEqual(found.strikes.length)
  }
})

test('the picture of the curve rises over a line where hits are, and nowhere else', () => {
  const steps = Array.from({ length: 12 }, (_, i) => [
    { seconds: 0.6 + 0.6 * i, level: 0.6 },
    { seconds: 0.7 + 0.6 * i, level: 0.12 },
  ]).flat()
  const mono = recording(steps, 9)
  const { curve, strikes } = heardStrikes(mono, RATE)
  const { strength } = curveOverLine(curve, strikes)
  expect(strikes.strikes.every(({ height, strength }) => height > 0 && height <= strength)).toBe(true)
  expect(strength.every((value, hop) => value <= curve.strength[hop])).toBe(true)
  for (const { hop, height } of strikes.strikes) expect(strength[hop]).toBeCloseTo(height, 5)
  const runs = strength.reduce((count, value, hop) => count + (value >= strikes.line && (strength[hop - 1] ?? 0) < strikes.line ? 1 : 0), 0)
  expect(runs).toBe(findHits(mono, RATE, strikes).length)
})

test('what the line did is said in one sentence', () => {
  expect(lineWords({ hits: 60, aftershocks: 38, faint: 0 })).toBe('60 hits; 38 weaker ones lie under the line: echoes and aftershocks.')
  expect(lineWords({ hits: 1, aftershocks: 0, faint: 1 })).toBe('1 hit; 1 weaker one lies under the line: faint.')
  expect(lineWords({ hits: 9, aftershocks: 4, faint: 3 })).toBe('9 hits; 7 weaker ones under the line: 4 aftershocks, 3 faint.')
  expect(lineWords({ hits: 0, aftershocks: 0, faint: 0 })).toBe('0 hits; nothing weaker lies under the line.')
})
