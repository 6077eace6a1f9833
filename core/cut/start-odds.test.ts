import { seeded } from '../kit/builders'
import { edgeNear } from './edge'
import { startChances, startNear } from './start-odds'
import { afterEdgeMs, START_PLACES, START_SIGNS, startSigns } from './start-signs'
import { learned } from './start-weights'

const RATE = 48000

/** Noise that dies away, from a time on, s; quiet room noise all the while. */
function burstsAt(
  seconds: number,
  bursts: readonly { at: number; level: number; ring: number }[],
  seed: number,
  rate = RATE,
): Float32Array {
  const random = seeded(seed)
  const out = Float32Array.from({ length: Math.round(seconds * rate) }, () => 1e-4 * (2 * random() - 1))
  for (const { at, level, ring } of bursts) {
    const from = Math.round(at * rate)
    for (let i = from; i < out.length; i++) out[i] += level * (2 * random() - 1) * Math.exp(-(i - from) / (ring * rate))
  }
  return out
}

test('the chances are shares of one whatever is heard: noise, silence, the very begin and end of a file, any rate', () => {
  const random = seeded(7)
  for (let run = 0; run < 60; run++) {
    const rate = [8000, 22050, 44100, 48000, 96000, 192000][run % 6]!
    const sounds = Float32Array.from({ length: Math.round(rate * 0.15 * random()) + 1 }, () => (run % 4 === 0 ? 0 : 2 * random() - 1))
    const edge = [0, sounds.length - 1, Math.floor(random() * sounds.length)][run % 3]!
    const chances = startChances(sounds, rate, edge)
    expect(chances).toHaveLength(START_PLACES)
    expect(chances.every((chance) => chance >= 0)).toBe(true)
    expect(chances.reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 9)
    const start = startNear(sounds, rate, edge)
    expect(Number.isInteger(start) && start >= 0 && start < sounds.length).toBe(true)
  }
})

test('how loud a recording is says nothing of where a strike begins', () => {
  const sounds = burstsAt(0.4, [{ at: 0.2, level: 0.5, ring: 0.03 }], 3)
  const [loud, soft] = [1, 0.1].map((gain) => startSigns(sounds.map((sample) => sample * gain), RATE, 9600)) // prettier-ignore
  soft!.forEach((sign, i) => expect(sign).toBeCloseTo(loud![i]!, 1))
})

test('each place is told by as many signs, and says how far from the edge it lies', () => {
  const signs = startSigns(burstsAt(0.3, [{ at: 0.15, level: 0.4, ring: 0.02 }], 4), RATE, 7200)
  expect(signs).toHaveLength(START_PLACES * START_SIGNS)
  for (let place = 0; place < START_PLACES; place++) expect(signs[(place + 1) * START_SIGNS - 4]).toBeCloseTo(afterEdgeMs(place) / 10, 5)
  expect([afterEdgeMs(0), afterEdgeMs((START_PLACES - 1) / 2), afterEdgeMs(START_PLACES - 1)]).toEqual([-26, 0, 26])
  expect(learned.inner).toHaveLength(learned.units * (START_SIGNS + 1))
})

test('a strike that stands clear begins at its edge, to the frame', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const at = Math.round((0.2 + seed * 1e-3) * RATE)
    const sounds = burstsAt(0.5, [{ at: at / RATE, level: 0.6, ring: 0.04 }], seed)
    expect(startNear(sounds, RATE, at)).toBe(edgeNear(sounds, RATE, at))
    expect(Math.abs(startNear(sounds, RATE, at) - at)).toBeLessThan(0.0005 * RATE)
  }
})

test('what touches softly some time before the stroke is its begin, at any rate', () => {
  for (const rate of [22050, 44100, 48000, 96000]) {
    const late: number[] = []
    for (let seed = 1; seed <= 12; seed++) {
      const touch = { at: 0.25, level: 0.03, ring: 0.02 }
      const sounds = burstsAt(0.6, [touch, { at: 0.262, level: 0.7, ring: 0.05 }], seed, rate)
      late.push((startNear(sounds, rate, Math.round(0.262 * rate)) / rate - touch.at) * 1000)
    }
    expect(late.filter((ms) => Math.abs(ms) < 3).length).toBeGreaterThanOrEqual(10)
  }
})

test('a net of no weights finds every place as likely', () => {
  const net = { units: 1, inner: new Float64Array(START_SIGNS + 1), outer: new Float64Array(2) }
  const chances = startChances(burstsAt(0.4, [{ at: 0.2, level: 0.5, ring: 0.03 }], 9), RATE, 9600, net)
  expect(new Set(chances).size).toBe(1)
})
