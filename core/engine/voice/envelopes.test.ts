import { aKit, seeded } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import type { Envelope, Response } from '../../kit/shape'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000

/** A pad of one clip, struck at frame 0 and let go at a frame, as it sounds. */
function played(own: OwnSettings, samples: Float32Array, letGo: number | undefined, frames: number): Float32Array {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels: [samples] }]] }])
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash))
  const padSlot = loader.slotOf(rig.kit.pads[0].id)
  const events = [
    { frame: 0, type: EventType.strike, padSlot, velocity: 127, key: 1 },
    ...(letGo === undefined ? [] : [{ frame: letGo, type: EventType.release, padSlot, key: 1 }]),
  ]
  return renderOffline(engine, toScore(events), frames)[0]
}

/** The formula of an envelope, by seconds: waiting, going round and letting go as docs/kit-format.md says. */
function model({ points, sustain, loop }: Envelope, letGo = Infinity) {
  const plain = (t: number): number => {
    const next = points.findIndex(({ seconds }) => seconds > t)
    if (next === 0) return points[0].value
    if (next < 0) return points[points.length - 1].value
    const [from, to] = [points[next - 1], points[next]]
    return way(from.value, to, (t - from.seconds) / (to.seconds - from.seconds))
  }
  const way = (from: number, to: Envelope['points'][number], u: number) => from + ((to.value - from) * u) / (u + 64 ** to.bend * (1 - u))
  const stop = loop?.to ?? sustain
  const held = (t: number): number => {
    if (stop === undefined || t < points[stop].seconds) return plain(t)
    if (!loop) return plain(points[stop].seconds)
    const [from, length] = [points[loop.from].seconds, points[loop.to].seconds - points[loop.from].seconds]
    return plain(from + ((t - from) % length))
  }
  return (t: number): number => {
    if (t < letGo || stop === undefined) return held(t)
    const [after, next] = [t - letGo + points[stop].seconds, points[stop + 1]]
    if (after >= next.seconds) return plain(after)
    return way(held(letGo), next, (after - points[stop].seconds) / (next.seconds - points[stop].seconds))
  }
}

function anyEnvelope(random: () => number, longest: number): Envelope {
  const count = 3 + Math.floor(4 * random())
  let seconds = random() < 0.5 ? 0 : 0.01 * random()
  const points = Array.from({ length: count }, () => {
    const point = { seconds, value: random(), bend: 2 * random() - 1 }
    seconds += random() < 0.3 ? 0.0001 + 0.0005 * random() : 0.002 + longest * random()
    return point
  })
  return { points }
}

test('the level is its formula at every sample, wherever its points fall, within 1e-6', () => {
  const random = seeded(71)
  const steady = new Float32Array(20000).fill(0.5)
  for (let i = 0; i < 40; i++) {
    const level = anyEnvelope(random, 0.08)
    const sound = played({ envelopes: { level } }, steady, undefined, 20000)
    const at = model(level)
    const end = level.points[level.points.length - 1].value === 0 ? level.points[level.points.length - 1].seconds : Infinity
    sound.forEach((sample, frame) => {
      if (frame / RATE > end) return
      const off = Math.abs(sample / 0.5 - at(frame / RATE))
      if (off > 1e-6) throw new Error(`${JSON.stringify(level)} is ${off} off at frame ${frame}`)
    })
  }
})

test('held, a level waits or goes round between two points; let go it sets out from where it is', () => {
  const random = seeded(72)
  const steady = new Float32Array(40000).fill(0.5)
  for (let i = 0; i < 40; i++) {
    const { points } = anyEnvelope(random, 0.06)
    const last = points.length - 2
    const level: Envelope =
      i % 2 ? { points, sustain: Math.floor(random() * (last + 1)) } : { points, loop: { from: 0, to: 1 + Math.floor(random() * last) } }
    const letGo = Math.floor(30000 * random())
    const sound = played({ mode: 'hold', envelopes: { level } }, steady, letGo, 40000)
    const at = model(level, letGo / RATE)
    const seam = level.loop ? points[level.loop.to].seconds - points[level.loop.from].seconds : Infinity
    sound.forEach((sample, frame) => {
      const expected = at(frame / RATE)
      const isAtSeam = level.loop !== undefined && frame < letGo && Math.abs(((frame / RATE - points[level.loop.from].seconds) / seam) % 1) * seam * RATE < 1 // prettier-ignore
      const off = Math.abs(sample / 0.5 - expected)
      if (off > 2e-6 && !isAtSeam) throw new Error(`${JSON.stringify(level)}, let go at ${letGo}: ${off} off at frame ${frame}`)
    })
  }
})

test('pitch waits too: held it stays where its envelope waits, let go it falls on', () => {
  const ramp = Float32Array.from({ length: 40000 }, (_, i) => i / 80000)
  const pitch: Envelope = { points: [{ seconds: 0, value: 1200, bend: 0 }, { seconds: 0.05, value: -700, bend: 0 }, { seconds: 0.1, value: -2400, bend: 0 }], sustain: 1 } // prettier-ignore
  const level: Envelope = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 1, value: 1, bend: 0 }, { seconds: 2, value: 1, bend: 0 }], sustain: 1 } // prettier-ignore
  const sound = played({ mode: 'hold', envelopes: { pitch, level } }, ramp, 12000, 24000)
  const rate = (frame: number) => ((sound[frame + 100] - sound[frame]) * 80000) / 100
  for (const frame of [3000, 7000, 11800]) expect(rate(frame)).toBeCloseTo(2 ** (-700 / 1200), 3)
  expect(rate(20000)).toBeCloseTo(2 ** (-2400 / 1200), 3)
  expect(rate(12800)).toBeLessThan(2 ** (-700 / 1200) - 0.05)
})

test('a filter that waits stays open while it is held and closes when it is let go', () => {
  const random = seeded(73)
  const noise = Float32Array.from({ length: 48000 }, () => random() - 0.5)
  const filter1: Envelope = { points: [{ seconds: 0, value: 0, bend: 0 }, { seconds: 0.02, value: 1, bend: 0 }, { seconds: 0.06, value: 0, bend: 0 }], sustain: 1 } // prettier-ignore
  const level: Envelope = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 5, value: 1, bend: 0 }, { seconds: 9, value: 1, bend: 0 }], sustain: 1 } // prettier-ignore
  const own: OwnSettings = {
    mode: 'hold',
    choices: { filter1Kind: 'lowPass' },
    values: { filter1CutoffHz: 150, filter1EnvelopeCents: 6000 },
    envelopes: { filter1, level },
  }
  const power = (sound: Float32Array, from: number, to: number) =>
    sound.slice(from, to).reduce((sum, sample) => sum + sample ** 2, 0) / (to - from)
  const sound = played(own, noise, 24000, 48000)
  const open = power(sound, 4000, 23900)
  expect(power(sound, 14000, 23900) / open).toBeGreaterThan(0.8)
  expect(power(sound, 30000, 47000) / open).toBeLessThan(0.1)
})

test('the decay stretches the level envelope, and where there is none those of pitch and filters, by responses too', () => {
  const pitch = { points: [{ seconds: 0, value: 900, bend: 0 }, { seconds: 0.05, value: -300, bend: 0.3 }] } // prettier-ignore
  const filter1 = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.04, value: 0, bend: -0.2 }] } // prettier-ignore
  const stretched = (of: typeof pitch, by: number) => ({ points: of.points.map((point) => ({ ...point, seconds: point.seconds * by })) })
  const own = { values: { filter1CutoffHz: 400, filter1EnvelopeCents: 3000 }, choices: { filter1Kind: 'lowPass' as const } }
  const softer: Response = { id: 'd', draw: 5, from: { kind: 'velocity' }, to: [{ param: 'decayScale' }], amount: 2, bypass: false } // at velocity 64 nearly a half
  const heard = (more: OwnSettings, velocity = 127) => struckOnce({ ...own, ...more, values: { ...own.values, ...more.values } }, velocity)
  const wanted = heard({ envelopes: { pitch: stretched(pitch, 0.5), filter1: stretched(filter1, 0.5) } })
  expect(apartDb(heard({ envelopes: { pitch, filter1 }, values: { decayScale: 0.5 } }), wanted)).toBeLessThan(-60)
  const by = 2 ** (2 * (64 / 127 - 1))
  const soft = heard({ envelopes: { pitch: stretched(pitch, by), filter1: stretched(filter1, by) } }, 64)
  expect(apartDb(heard({ envelopes: { pitch, filter1 }, responses: [softer] }, 64), soft)).toBeLessThan(-60)
  expect(apartDb(heard({ envelopes: { pitch, filter1 }, responses: [softer] }, 64), wanted)).toBeGreaterThan(-40)
  // With a level envelope the others stay as they are.
  const level = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.1, value: 0.4, bend: 0 }] } // prettier-ignore
  const withLevel = heard({ envelopes: { pitch, filter1, level }, values: { decayScale: 0.5 } })
  expect(apartDb(withLevel, heard({ envelopes: { pitch, filter1, level: stretched(level, 0.5) } }))).toBeLessThan(-100)
})

function struckOnce(own: OwnSettings, velocity: number): Float32Array {
  const clip = Float32Array.from({ length: 9000 }, (_, i) => 0.1 * Math.sin(i * 0.05) + 0.1 * Math.sin(i * 0.31))
  const rig = aKit([{ own, bands: [[{ sampleRateHz: 48000, channels: [clip] }]] }])
  const { engine, loader } = createOffline(rig.kit, 48000, (hash) => rig.audio.get(hash))
  const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(rig.kit.pads[0].id), velocity }
  return renderOffline(engine, toScore([strike]), 6000)[0]
}

function apartDb(one: Float32Array, other: Float32Array): number {
  const power = other.reduce((sum, sample) => sum + sample ** 2, 0)
  return 10 * Math.log10(one.reduce((sum, sample, i) => sum + (sample - other[i]) ** 2, 0) / power)
}
