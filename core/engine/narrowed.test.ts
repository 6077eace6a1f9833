/** @jest-environment node */
import { narrowedTo } from '../kit/resolve'
import { seeded } from '../kit/testing'
import { draw } from './hosts/worker'
import { EventType } from './program/codes'
import { randomRulesKit } from './testing/rules-kits'

test('a strike of a pad narrowed to its band sounds as the whole pad does, to the bit, whatever the pad and the velocity', () => {
  const random = seeded(77)
  let [narrowed, sounding] = [0, 0]
  for (let seed = 1; seed <= 30; seed++) {
    const { kit, audio } = randomRulesKit(seed)
    for (const whole of kit.pads) {
      const bands = random() < 0.7 ? whole.bands.map((band) => ({ ...band, blendVelocities: 0 })) : whole.bands
      const pad = { ...whole, bands }
      const velocity = 1 + Math.floor(random() * 127)
      const less = narrowedTo(pad, velocity)
      if (less !== pad) narrowed++
      const [all, alone] = [pad, less].map((one) =>
        draw({
          id: 1,
          kit: { ...kit, pads: [one], ties: [], values: {} },
          audio: [...audio],
          events: [{ padId: pad.id, frame: 0, type: EventType.strike, velocity }],
          frames: 3000,
          sampleRateHz: 48000,
        }),
      )
      if (all!.left.some((sample) => sample !== 0)) sounding++
      expect([seed, velocity, alone!.left]).toEqual([seed, velocity, all!.left])
      expect(alone!.right).toEqual(all!.right)
    }
  }
  expect(narrowed).toBeGreaterThan(40)
  expect(sounding).toBeGreaterThan(50)
})
