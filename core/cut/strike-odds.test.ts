import { seeded } from '../kit/builders'
import { FLUX_PER_SECOND } from './flux'
import { oddsOf } from './net'
import { strikeOdds } from './strike-odds'
import { SIGNS, signsOf } from './strike-signs'
import type { Sound } from './strike-signs'
import { learned } from './strike-weights'

/** Rises at random times, as loud and sudden as chance has it. */
function randomSounds(seed: number): Sound[] {
  const random = seeded(seed)
  let seconds = random()
  return Array.from({ length: 1 + Math.floor(random() * 80) }, () => {
    seconds += 0.015 + 0.5 * random() ** 2
    const levels = Array.from({ length: 6 }, () => -5 + 50 * random())
    const before = levels.map((level) => level - 40 * random())
    const loudness = levels.reduce((sum, level) => sum + Math.max(0, level), 0) / 6
    return { hop: Math.round(seconds * 750), seconds, strength: 0.15 + 0.8 * random(), levels, before, loudness }
  })
}

/** Rises of the spectrum of two minutes, mostly small. */
function randomFlux(seed: number): Float32Array {
  const random = seeded(seed)
  return Float32Array.from({ length: 120 * FLUX_PER_SECOND }, () => 60 * random() ** 8)
}

const NO_FLUX = new Float32Array(0)

test('every sign is a number about 0, whatever the recording, and there are none of nothing', () => {
  expect(signsOf([], NO_FLUX)).toHaveLength(0)
  for (let seed = 1; seed <= 200; seed++) {
    const sounds = randomSounds(seed)
    const signs = signsOf(sounds, randomFlux(seed))
    expect(signs).toHaveLength(sounds.length * SIGNS)
    expect(signs.every((sign) => Math.abs(sign) < 8)).toBe(true)
    expect(strikeOdds(sounds, randomFlux(seed)).every(Number.isFinite)).toBe(true)
  }
})

test('when it was struck says nothing: the same later has the same signs', () => {
  const sounds = randomSounds(5)
  const later = sounds.map((sound) => ({ ...sound, seconds: sound.seconds + 1000, hop: sound.hop + 750_000 }))
  const flux = randomFlux(5)
  const laterFlux = new Float32Array(1000 * FLUX_PER_SECOND + flux.length)
  laterFlux.set(flux, 1000 * FLUX_PER_SECOND)
  const [now, then] = [signsOf(sounds, flux), signsOf(later, laterFlux)]
  then.forEach((sign, i) => expect(sign).toBeCloseTo(now[i]!, 6))
})

test('a rise far from others has nothing before it and nothing after it; one beside a louder one has', () => {
  const lone = { hop: 0, seconds: 1, strength: 0.6, levels: [40, 40], before: [0, 0], loudness: 40 }
  const soft = { ...lone, seconds: 1.1, strength: 0.5, levels: [20, 20], before: [10, 10], loudness: 20 }
  const alone = signsOf([lone], NO_FLUX).slice(7, 30)
  const [first, second] = [signsOf([lone, soft], NO_FLUX).slice(0, SIGNS), signsOf([lone, soft], NO_FLUX).slice(SIGNS)]
  expect(alone.every((sign) => sign < -1)).toBe(true)
  // The soft one comes 100 ms after: the third window before it holds one 20 dB louder and more sudden by 0.1.
  expect(second[7 + 6]).toBeCloseTo(20 / 15 + 0.5, 9)
  expect(second[7 + 7]).toBeCloseTo(0.1 / 0.3 + 0.3, 9)
  expect(first[22 + 4]).toBeCloseTo(-20 / 15 + 0.5, 9)
})

test('the net is a weighted sum of bent weighted sums', () => {
  const random = seeded(3)
  const net = {
    units: 2,
    inner: Float64Array.from({ length: 2 * (SIGNS + 1) }, () => random() - 0.5),
    outer: Float64Array.of(0.7, -1.2, 0.1),
  }
  const signs = Float64Array.from({ length: SIGNS }, () => 2 * random() - 1)
  const unit = (at: number) => Math.tanh(signs.reduce((sum, sign, i) => sum + sign * net.inner[at + i]!, net.inner[at + SIGNS]!))
  expect(oddsOf(net, signs, 0, SIGNS)).toBeCloseTo(0.7 * unit(0) - 1.2 * unit(SIGNS + 1) + 0.1, 12)
  expect(learned.inner).toHaveLength(learned.units * (SIGNS + 1))
  expect(learned.outer).toHaveLength(learned.units + 1)
})

test('steady strokes are likely strikes, what follows softly in their wake is not', () => {
  const strike = (seconds: number, strength: number, db: number): Sound => ({ hop: Math.round(seconds * 750), seconds, strength, levels: Array<number>(6).fill(db), before: Array<number>(6).fill(db - 60 * strength), loudness: Math.max(0, db) }) // prettier-ignore
  const sounds = Array.from({ length: 12 }, (_, i) => [strike(i * 0.6, 0.7, 48), strike(i * 0.6 + 0.09, 0.35, 24)]).flat()
  const flux = new Float32Array(Math.ceil(8 * FLUX_PER_SECOND)).fill(0.3)
  for (const { seconds, strength } of sounds) flux[Math.round(seconds * FLUX_PER_SECOND)] = strength > 0.5 ? 60 : 6
  const odds = strikeOdds(sounds, flux)
  odds.forEach((each, i) => (i % 2 === 0 ? expect(each).toBeGreaterThan(1) : expect(each).toBeLessThan(-1)))
})
