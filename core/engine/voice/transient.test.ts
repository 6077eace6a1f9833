import { aKit, seeded } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000

function played(own: OwnSettings, channels: Float32Array[], { block = 128, isPlain = false, wheel = -1 } = {}): Float32Array[] {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels }]] }])
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash), rig.kit.seed, undefined, isPlain)
  const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(rig.kit.pads[0].id), velocity: 127 }
  const turn = { frame: 900, type: EventType.controller, padSlot: 0, note: 1, velocity: wheel }
  return renderOffline(engine, toScore(wheel < 0 ? [strike] : [strike, turn]), channels[0].length, block)
}

/** A struck sound: a ring that dies away over noise that dies away at once. */
function hit(random: () => number, decay: number): Float32Array {
  const hz = 80 + 900 * random()
  return Float32Array.from({ length: 24000 }, (_, i) => {
    const ring = Math.sin((2 * Math.PI * hz * i) / RATE) * Math.exp(-i / (decay * RATE))
    return 0.02 * (0.7 * ring + 0.3 * (2 * random() - 1) * Math.exp(-i / (0.002 * RATE)))
  })
}

const power = (sound: Float32Array, from: number, to: number) => sound.slice(from, to).reduce((sum, sample) => sum + sample ** 2, 0)
const changeDb = (after: Float32Array, before: Float32Array, from: number, to: number) =>
  10 * Math.log10(power(after, from, to) / power(before, from, to))

test('attack moves the first milliseconds, tail what rings after, each by what is asked and hardly the other', () => {
  const random = seeded(61)
  for (const decay of [0.08, 0.15, 0.3]) {
    const clip = hit(random, decay)
    for (const db of [-24, -9, 9, 24]) {
      const [attack] = played({ values: { attackDb: db } }, [clip])
      expect(changeDb(attack, clip, 0, 96)).toBeCloseTo(db, -0.3)
      expect(Math.abs(changeDb(attack, clip, 6000, 20000))).toBeLessThan(1)
      const [tail] = played({ values: { tailDb: db } }, [clip])
      expect(changeDb(tail, clip, 9600, 20000)).toBeCloseTo(db, -0.3)
      expect(Math.abs(changeDb(tail, clip, 0, 96))).toBeLessThan(1)
    }
    const [both] = played({ values: { attackDb: 6, tailDb: 6 } }, [clip])
    expect(clip.every((sample, i) => Math.abs(both[i] - sample * 10 ** 0.3) < 1e-6)).toBe(true)
  }
})

test('both channels of a clip are moved alike, and nothing steps', () => {
  const random = seeded(62)
  const left = hit(random, 0.12)
  const right = left.map((sample) => 0.5 * sample)
  const [outLeft, outRight] = played({ values: { attackDb: 18, tailDb: -18 } }, [left, right])
  expect(outLeft.every((sample, i) => Math.abs(outRight[i] - 0.5 * sample) < 1e-6)).toBe(true)
  const gains = Array.from(left, (sample, i) => (Math.abs(sample) > 1e-5 ? 20 * Math.log10(outLeft[i] / sample) : undefined))
  const steps = gains.map((gain, i) => (gain === undefined || gains[i - 1] === undefined ? 0 : Math.abs(gain - gains[i - 1]!)))
  expect(Math.max(...steps)).toBeLessThan(0.6)
})

test('a wheel moves both while they sound, the same in every block and both forms', () => {
  const random = seeded(63)
  const clip = [hit(random, 0.2), hit(random, 0.1)]
  const to = (param: 'attackDb' | 'tailDb', amount: number) => ({ id: param, draw: 0, from: { kind: 'wheel' as const }, to: [{ param }], amount, bypass: false }) // prettier-ignore
  const own: OwnSettings = { values: { attackDb: 4, tuneCents: 70 }, responses: [to('attackDb', -12), to('tailDb', 15)] }
  const sound = played(own, clip, { wheel: 100 })
  expect(sound[0]).not.toEqual(played(own, clip)[0])
  expect(played(own, clip, { wheel: 100, block: 37 })).toEqual(sound)
  expect(played(own, clip, { wheel: 100, isPlain: true })).toEqual(sound)
})
