import { RATE, strikeSound, things } from '@heliaster/demo'

import { seeded } from '../kit/builders'
import { strikeLikeness } from './strike-likeness'

const NEAR = { name: 'near', brightness: 1, delaySeconds: 0, room: 0.06, gain: 1 }
const FAR = { name: 'far', brightness: 0.8, delaySeconds: 0.006, room: 0.35, gain: 0.4 }

test.each(['hullThump', 'oarLow', 'oarHigh', 'winchRatchet', 'hatchTick'] as const)(
  'one strike of %s is far more alike in two microphones than two strikes that sound the same',
  (name) => {
    const takes = [0, 1, 2].map((take) =>
      [NEAR, FAR].map((microphone) => strikeSound(things[name], 0.5 + 0.02 * take, 70 + take, microphone)),
    )
    for (const [i, [near, own]] of takes.entries()) {
      const same = strikeLikeness(near, own, RATE)!
      expect(same).toBeGreaterThan(0.8)
      for (const [j, [, far]] of takes.entries()) if (j !== i) expect(strikeLikeness(near, far, RATE)).toBeLessThan(same - 0.2)
    }
  },
)

test('likeness is 1 for the same at any level and either way up, alike both ways, and nothing for silence', () => {
  const random = seeded(8)
  for (let n = 0; n < 20; n++) {
    const [a, b] = [0, 1].map(() => Float32Array.from({ length: 9600 }, (_, i) => (random() - 0.5) * Math.exp(-i / 900)))
    expect(strikeLikeness(a, a, RATE)).toBeCloseTo(1, 6)
    expect(strikeLikeness(a, a.map((sample) => -0.03 * sample), RATE)).toBeCloseTo(1, 6) // prettier-ignore
    const both = strikeLikeness(a, b, RATE)!
    expect(both).toBeCloseTo(strikeLikeness(b, a, RATE)!, 6)
    expect(both).toBeLessThan(0.5)
    expect(strikeLikeness(a, new Float32Array(9600), RATE)).toBeUndefined()
  }
})
