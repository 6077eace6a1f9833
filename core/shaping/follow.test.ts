/** @jest-environment node */
import { seeded } from '../kit/testing'
import { followLevel, followPitch } from '.'
import type { RecordedHit } from '.'
import { envelopeAt } from './trace'

const RATES = [44100, 48000, 96000]

interface Tone {
  readonly settlesHz: number
  readonly over: number
  readonly tau: number
  readonly seconds: number
  readonly sampleRateHz: number
}

/** A tone that falls, dies away, and begins with a click in some hiss. */
function struck({ settlesHz, over, tau, seconds, sampleRateHz }: Tone, random: () => number): RecordedHit {
  let phase = 0
  const mono = Float32Array.from({ length: Math.round(seconds * sampleRateHz) }, (_, i) => {
    const at = i / sampleRateHz
    phase += (2 * Math.PI * settlesHz * (1 + over * Math.exp(-at / tau))) / sampleRateHz
    return 0.8 * Math.sin(phase) * Math.exp((-5 * at) / seconds) + (random() - 0.5) * (0.01 + 0.8 * Math.exp(-at / 0.0015))
  })
  return { mono, sampleRateHz }
}

test('the fall of a struck tone is measured: within half a semitone on average after its first period', () => {
  const random = seeded(31)
  for (let n = 0; n < 20; n++) {
    const tone = { settlesHz: 40 * 2 ** (random() * 2.4), over: [0, 0.3, 1, 3, 8][n % 5]!, tau: 0.005 * 2 ** (random() * 2.5), seconds: 0.25 + random() * 0.3, sampleRateHz: RATES[n % 3]! } // prettier-ignore
    const found = followPitch(struck(tone, random))!
    const off = [1, 1.5, 2.5, 4].map((periods) => {
      const at = periods / tone.settlesHz
      const wanted = tone.settlesHz * (1 + tone.over * Math.exp(-at / tone.tau))
      return Math.abs(envelopeAt(found.envelope, at) + 1200 * Math.log2(found.settlesHz / wanted))
    })
    expect([n, off.reduce((sum, cents) => sum + cents) / 4 < 50, Math.max(...off) < 150]).toEqual([n, true, true])
    expect(found.envelope.points.length).toBeLessThanOrEqual(12)
    expect(found.envelope.points[found.envelope.points.length - 1]!.value).toBe(0)
  }
})

test('noise and silence have no pitch to follow, and silence no level', () => {
  const random = seeded(5)
  const noise = { mono: Float32Array.from({ length: 12000 }, (_, i) => (random() - 0.5) * Math.exp(-i / 3000)), sampleRateHz: 48000 }
  const silence = { mono: new Float32Array(12000), sampleRateHz: 48000 }
  expect(followPitch(noise)).toBeUndefined()
  expect(followPitch(silence)).toBeUndefined()
  expect(followPitch({ ...noise, mono: noise.mono.subarray(0, 40) })).toBeUndefined()
  expect(followLevel(noise, silence)).toBeUndefined()
  expect(followLevel(silence, noise)).toBeUndefined()
})

const dbOf = (level: number) => 20 * Math.log10(Math.max(1e-4, level))

test('a hit that follows another dies away as it does, where it has enough to take from', () => {
  const random = seeded(9)
  for (let n = 0; n < 8; n++) {
    const sampleRateHz = RATES[n % 3]!
    const [wanted, had] = [0.02 + random() * 0.05, 0.12 + random() * 0.3]
    const hz = 60 * 2 ** (random() * 5)
    const ringing = (tau: number, of: number): RecordedHit => ({
      sampleRateHz,
      mono: Float32Array.from({ length: Math.round(of * sampleRateHz) }, (_, i) => Math.sin((2 * Math.PI * hz * i) / sampleRateHz) * Math.exp(-i / sampleRateHz / tau)),
    }) // prettier-ignore
    const envelope = followLevel(ringing(wanted, 8 * wanted), ringing(had, 3 * had))!
    for (const share of [0.3, 1, 2, 3, 4]) {
      const at = share * wanted
      const sounds = dbOf(envelopeAt(envelope, at)) + dbOf(Math.exp(-at / had))
      expect([n, share, Math.abs(sounds - dbOf(Math.exp(-at / wanted))) < 2]).toEqual([n, share, true])
    }
    expect(envelope.points.length).toBeLessThanOrEqual(24)
    expect(envelope.points[envelope.points.length - 1]!.value).toBe(0)
  }
})

test('a hit that is over before the other stays as it is until then', () => {
  const ringing = (tau: number): RecordedHit => ({ sampleRateHz: 48000, mono: Float32Array.from({ length: 24000 }, (_, i) => Math.sin(i / 9) * Math.exp(-i / 48000 / tau)) }) // prettier-ignore
  const envelope = followLevel(ringing(0.2), ringing(0.03))!
  for (const at of [0.01, 0.05, 0.1, 0.15]) expect(envelopeAt(envelope, at)).toBeGreaterThan(0.89)
})
