import { seeded } from '../kit/builders'
import { pulseOf } from './pulse'

const PATTERN = 'x.x.x.xxx.x.xx.x'

/** Hands that stray by about 10 ms on sixteenths; which place each strike is meant for. */
function hands(seed: number, step: number, swing: number, bars = 6) {
  const random = seeded(seed)
  const strikes: { seconds: number; strength: number; place: number }[] = []
  for (let i = 0; i < bars * 16; i++)
    if (PATTERN[i % 16] === 'x') {
      const stray = 0.01 * (random() + random() + random() - 1.5)
      strikes.push({
        seconds: 0.4 + (2 * Math.floor(i / 2) + (i % 2) * 2 * swing) * step + stray,
        strength: i % 4 === 0 ? 1 : 0.6,
        place: i,
      })
    }
  return strikes
}

test('the pulse of straight and of swung hands is found at any tempo: how long a pair is, how it swings, and on which place each strike falls', () => {
  for (const swing of [0.5, 0.58, 2 / 3])
    for (const step of [0.11, 0.145, 0.19])
      for (let seed = 1; seed <= 3; seed++) {
        const strikes = hands(seed, step, swing)
        const pulse = pulseOf(strikes)!
        expect(Math.abs(pulse.pairSeconds / (2 * step) - 1)).toBeLessThan(0.004)
        expect(Math.abs(pulse.swing - swing)).toBeLessThan(0.03)
        expect(pulse.confidence).toBeGreaterThan(0.8)
        expect(Math.abs(pulse.firstSeconds - 0.4)).toBeLessThan(0.01)
        expect(pulse.places).toEqual(strikes.map(({ place }) => place))
      }
})

test('a pulse goes along with its recording: later by as much, and no other where all is louder', () => {
  const strikes = hands(4, 0.13, 0.6)
  const [plain, later, louder] = [strikes, strikes.map((one) => ({ ...one, seconds: one.seconds + 3.7 })), strikes.map((one) => ({ ...one, strength: 9 * one.strength }))].map((list) => pulseOf(list)!) // prettier-ignore
  expect(later.firstSeconds - plain.firstSeconds).toBeCloseTo(3.7, 4)
  expect(later.pairSeconds).toBeCloseTo(plain.pairSeconds, 6)
  expect(later.places).toEqual(plain.places)
  expect(louder.pairSeconds).toBeCloseTo(plain.pairSeconds, 9)
  expect(louder.places).toEqual(plain.places)
})

test('the order in which strikes are given says nothing', () => {
  const strikes = hands(5, 0.16, 0.5)
  const [plain, turned] = [pulseOf(strikes)!, pulseOf([...strikes].reverse())!]
  expect(turned.pairSeconds).toBeCloseTo(plain.pairSeconds, 6)
  expect([...turned.places].reverse()).toEqual(plain.places)
})

test('hands that grow faster are followed from place to place', () => {
  const strikes = hands(6, 0.15, 0.5, 8).map((one) => ({ ...one, seconds: one.seconds - 0.0006 * one.seconds ** 2 }))
  expect(pulseOf(strikes)!.places).toEqual(strikes.map(({ place }) => place))
})

test('strikes at any time have no pulse, and five are too few to have one', () => {
  let found = 0
  for (let seed = 1; seed <= 10; seed++) {
    const random = seeded(seed)
    let seconds = 0
    const strikes = Array.from({ length: 60 }, () => ({ seconds: (seconds += 0.1 + 0.7 * random()), strength: 1 }))
    if (pulseOf(strikes)) found++
  }
  expect(found).toBeLessThanOrEqual(1)
  expect(pulseOf(hands(1, 0.13, 0.5).slice(0, 5))).toBeUndefined()
  expect(pulseOf([])).toBeUndefined()
})
