import { aKit, seeded } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000

function played(own: OwnSettings, channels: Float32Array[], { block = 128, isPlain = false, velocity = 127 } = {}): Float32Array[] {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels }]] }])
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash), rig.kit.seed, undefined, isPlain)
  const padSlot = loader.slotOf(rig.kit.pads[0].id)
  return renderOffline(engine, toScore([{ frame: 0, type: EventType.strike, padSlot, velocity }]), 2 * channels[0].length, block)
}

test('a strike ends before its clip does, fades in by time and out by how far the clip was read, at any pitch', () => {
  const random = seeded(51)
  const steady = new Float32Array(9000).fill(0.5)
  for (let i = 0; i < 30; i++) {
    const tuneCents = i % 3 === 0 ? 0 : 2400 * random() - 1200
    const rate = 2 ** (tuneCents / 1200)
    const [startSeconds, endSeconds, fadeInSeconds, fadeOutSeconds] = [0.03, 0.05, 0.04, 0.08].map((most) => most * random())
    const [left] = played({ values: { tuneCents, startSeconds, endSeconds, fadeInSeconds, fadeOutSeconds } }, [steady])
    const end = 9000 - Math.floor(endSeconds * RATE + 0.5)
    const begin = Math.floor(startSeconds * RATE + 0.5)
    for (let frame = 0; frame < 17000; frame++) {
      const at = begin + frame * rate
      if (at > end - 60 && at < end + 60) continue // where a table looks over the edge
      const level = at >= end ? 0 : Math.min(1, frame / (fadeInSeconds * RATE)) * Math.min(1, (end - at) / (fadeOutSeconds * RATE))
      const isEdge = tuneCents !== 0 && at < 60
      if (!isEdge && Math.abs(left[frame] / 0.5 - level) > 2e-4) throw new Error(`${tuneCents} cents, frame ${frame}: ${left[frame] / 0.5}, not ${level}`) // prettier-ignore
    }
  }
})

test('softer strikes may end sooner and fade longer; blocks and forms change nothing', () => {
  const random = seeded(52)
  const clip = [0, 1].map(() => Float32Array.from({ length: 6000 }, () => random() - 0.5))
  const from = (param: 'endSeconds' | 'fadeInSeconds', amount: number) => ({ id: param, draw: 0, from: { kind: 'velocity' as const }, to: [{ param }], amount, bypass: false }) // prettier-ignore
  const own: OwnSettings = {
    values: { fadeOutSeconds: 0.03, tuneCents: 130 },
    envelopes: { pitch: { points: [{ seconds: 0, value: 300, bend: 0 }, { seconds: 0.05, value: 0, bend: 0.4 }] } }, // prettier-ignore
    responses: [from('endSeconds', -0.06), from('fadeInSeconds', -0.05)],
  }
  const last = (sound: Float32Array[]) => sound[0].findLastIndex((sample) => sample !== 0)
  const soft = played(own, clip, { velocity: 20 })
  expect(last(soft)).toBeLessThan(last(played(own, clip)) - 1500)
  expect(played(own, clip, { velocity: 20, block: 41 })).toEqual(soft)
  expect(played(own, clip, { velocity: 20, isPlain: true })).toEqual(soft)
})

test('what is left off at the end, or faded out there, changes nothing before, however high a hit is pitched', () => {
  const random = seeded(53)
  const clip = Float32Array.from({ length: 9000 }, () => random() - 0.5)
  for (let i = 0; i < 24; i++) {
    const tuneCents = 5000 * random() - 400
    const glide =
      i % 2 === 0
        ? {}
        : {
            pitch: {
              points: [
                { seconds: 0, value: 1300, bend: 0 },
                { seconds: 0.05, value: 0, bend: 0 },
              ],
            },
          }
    const [endSeconds, fadeOutSeconds] = [0.09 * random(), 0.03 * random()]
    const isPlain = i % 3 === 0
    const [whole] = played({ values: { tuneCents, gainDb: -30 }, envelopes: glide }, [clip], { isPlain })
    const [cut] = played({ values: { tuneCents, endSeconds, fadeOutSeconds, gainDb: -30 }, envelopes: glide }, [clip], { isPlain })
    const rate = 2 ** ((tuneCents + 1300) / 1200)
    const same = Math.floor((9000 - (endSeconds + fadeOutSeconds) * RATE - 300) / rate)
    expect(cut.findIndex((sample, at) => sample !== whole[at])).toBeGreaterThanOrEqual(Math.max(0, same))
    expect(cut.every(Number.isFinite)).toBe(true)
  }
})
