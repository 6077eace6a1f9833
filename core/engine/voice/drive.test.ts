import { aKit, seeded } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000
const KINDS = ['soft', 'hard', 'folded', 'uneven'] as const
type Kind = (typeof KINDS)[number]

/** The curves, as the format says them. */
const curves: Record<Kind, (x: number) => number> = {
  soft: (x) => x / Math.sqrt(1 + x * x),
  hard: (x) => Math.min(1, Math.max(-1, x)),
  folded: Math.sin,
  uneven: (x) => {
    const leaned = (y: number) => y / Math.sqrt(1 + y * y)
    return ((leaned(1.6 * x + 0.6) - leaned(0.6)) * 1.36 ** 1.5) / 1.6
  },
}

interface How {
  readonly frames: number
  readonly at?: number
  readonly block?: number
  readonly isPlain?: boolean
  readonly moves?: readonly { frame: number; note: number; velocity: number }[]
}

/** A strike of a pad, of as many rays as there are lists of own values. */
function played(own: OwnSettings, clip: Float32Array, how: How, rays: readonly OwnSettings['values'][] = [{}]): Float32Array[] {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels: [clip] }]] }])
  const [pad] = rig.kit.pads
  const turn = pad.bands[0].turns[0]
  const first = Object.values(turn.clips)[0]
  const kit = {
    ...rig.kit,
    pads: [
      {
        ...pad,
        rays: rays.map((values, i) => ({ ...pad.rays[0], id: `ray${i}`, values })),
        bands: [{ ...pad.bands[0], turns: [{ ...turn, clips: Object.fromEntries(rays.map((_, i) => [`ray${i}`, first])) }] }],
      },
    ],
  } as typeof rig.kit
  const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash), kit.seed, undefined, how.isPlain)
  const strike = { frame: how.at ?? 0, type: EventType.strike, padSlot: loader.slotOf(pad.id), velocity: 127 }
  const events = [strike, ...(how.moves ?? []).map((move) => ({ ...move, type: EventType.controller, padSlot: 0 }))]
  return renderOffline(engine, toScore(events), how.frames, how.block ?? 128)
}

function sine(hz: number, frames: number): Float32Array {
  return Float32Array.from({ length: frames }, (_, i) => 0.5 * Math.sin((2 * Math.PI * hz * i) / RATE))
}

const BINS = 4800 // of 10 Hz
const cosines = Float64Array.from({ length: BINS }, (_, i) => Math.cos((2 * Math.PI * i) / BINS))

/** Amplitudes below 16 kHz, one for every 10 Hz, of a stretch well within a sound. */
function amplitudes(samples: Float32Array): Float64Array {
  return Float64Array.from({ length: 1600 }, (_, bin) => {
    let [re, im] = [0, 0]
    for (let i = 0; i < BINS; i++) {
      re += samples[33600 + i] * cosines[(bin * i) % BINS]
      im += samples[33600 + i] * cosines[(bin * i + 1200) % BINS]
    }
    return (2 * Math.hypot(re, im)) / BINS
  })
}

/** The harmonics of a curve over a sine, by sums over one period that is looked at closely. */
function harmonicsOf(curve: (x: number) => number, count: number): number[] {
  const points = 1 << 12
  return Array.from({ length: count }, (_, h) => {
    let [re, im] = [0, 0]
    for (let i = 0; i < points; i++) {
      const angle = (2 * Math.PI * (i + 0.5)) / points
      const value = curve(Math.sin(angle))
      re += value * Math.cos((h + 1) * angle)
      im += value * Math.sin((h + 1) * angle)
    }
    return (2 * Math.hypot(re, im)) / points
  })
}

const random = seeded(77)
const cases = KINDS.flatMap((kind) =>
  [3, 12, 24].map((driveDb) => ({ kind, driveDb, hz: 10 * Math.round(5 * 100 ** random()) })).concat({ kind, driveDb: 24, hz: 4990 }),
)

test.each(cases)('a sine of $hz Hz through $driveDb dB of $kind drive has its harmonics, and nothing else to speak of', (given) => {
  const { kind, driveDb, hz } = given
  const values = { driveDb, driveLevelDb: -20 } // clear of the limiter
  const [left] = played({ values, choices: { driveKind: kind } }, sine(hz, 40000), { frames: 40000 })
  const found = amplitudes(left).map((amplitude) => amplitude * 10)
  const gain = 10 ** (driveDb / 20)
  const mix = Math.min(1, driveDb / 6)
  const count = Math.floor(15990 / hz)
  const expected = harmonicsOf((x) => (1 - mix) * gain * 0.5 * x + mix * curves[kind](gain * 0.5 * x), count)
  let [wanted, unwanted] = [0, 0]
  for (let bin = 1; bin < 1600; bin++) {
    if ((bin * 10) % hz !== 0) unwanted += found[bin] ** 2
    else wanted += found[bin] ** 2
  }
  expect(10 * Math.log10(unwanted / wanted)).toBeLessThan(kind === 'soft' || kind === 'uneven' ? -60 : -50)
  // The mean over a fourth of a frame takes a hundredth off the highest.
  expected.forEach((amplitude, h) => expect(Math.abs(found[((h + 1) * hz) / 10] - amplitude)).toBeLessThan(0.0015 + 0.012 * amplitude))
})

/** A sound of many tones below 4 kHz that begins softly, so that nothing of it lies beyond what drive keeps. */
function manyTones(frames: number, most: number): Float32Array {
  const random = seeded(5)
  const tones = Array.from({ length: 30 }, () => ({ hz: 100 + 3900 * random(), phase: 6.283 * random() }))
  return Float32Array.from({ length: frames }, (_, i) => {
    const rise = 0.5 - 0.5 * Math.cos(Math.PI * Math.min(1, i / 400))
    return (most / 30) * rise * tones.reduce((sum, { hz, phase }) => sum + Math.sin((2 * Math.PI * hz * i) / RATE + phase), 0)
  })
}

test('microphones of a strike stay together to the sample, driven once, twice or not, with pitch and bend', () => {
  const clip = manyTones(16000, 0.05)
  const own: OwnSettings = {
    responses: [{ id: 'bend', draw: 1, from: { kind: 'wheel' }, to: [{ param: 'tuneCents' }], amount: 700, bypass: false }],
    envelopes: { pitch: { points: [{ seconds: 0, value: 300, bend: 0 }, { seconds: 0.1, value: 0, bend: 0.4 }] } },
    choices: { driveKind: 'hard' },
  } // prettier-ignore
  const moves = [{ frame: 3000, note: 1, velocity: 127 }, { frame: 6000, note: 1, velocity: 30 }] // prettier-ignore
  for (const values of [{ driveDb: 12 }, { driveAfterDb: 12 }, { driveDb: 6, driveAfterDb: 6 }]) {
    const together = played(own, clip, { frames: 9000, moves }, [{ pan: -1 }, { pan: 1, ...values }])
    const error = together[1].reduce((most, sample, i) => Math.max(most, Math.abs(sample / 10 ** 0.6 - together[0][i])), 0)
    expect(error).toBeLessThan(0.05 * 10 ** (-50 / 20)) // a frame apart it would be -10 dB
    expect(Math.max(...together[0])).toBeGreaterThan(0.02)
  }
})

test('it plays the same in both forms, in blocks of any size, wherever the strike falls, moved or not', () => {
  const random = seeded(6)
  const clip = Float32Array.from({ length: 5000 }, (_, i) => (random() - 0.5) * Math.exp(-i / 900))
  const wheel = { id: 'wheel', draw: 2, from: { kind: 'wheel' as const }, to: [{ param: 'driveDb' as const }], amount: 30, bypass: false }
  for (const driveKind of KINDS)
    for (const responses of [[], [wheel]]) {
      const values = { driveDb: 14, driveAfterDb: 5, driveLevelDb: -8, filter1CutoffHz: 900 }
      const own: OwnSettings = { values, choices: { driveKind, filter1Kind: 'lowPass' }, responses }
      const moves = responses.length > 0 ? [{ frame: 700, note: 1, velocity: 100 }] : []
      const [once] = played(own, clip, { frames: 7000, moves })
      for (const how of [{ block: 1 }, { block: 37 }, { isPlain: true }, { isPlain: true, block: 53 }])
        expect(played(own, clip, { frames: 7000, moves, ...how })[0]).toEqual(once)
      if (moves.length > 0) continue
      const [later] = played(own, clip, { frames: 7999, at: 999 })
      expect(later.subarray(999)).toEqual(once)
    }
})

test('drive of nothing does nothing, comes in by degrees, keeps its level by its number and ends in silence', () => {
  const clip = manyTones(4000, 0.4)
  const rms = (samples: Float32Array) => Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length)
  const [plain] = played({}, clip, { frames: 6000 })
  expect(played({ values: { driveDb: 0 } }, clip, { frames: 6000 })[0]).toEqual(plain)
  for (const driveKind of KINDS) {
    const little = played({ values: { driveDb: 0.02 }, choices: { driveKind } }, clip, { frames: 6000 })[0]
    expect(little.slice(0, 3900).reduce((most, sample, i) => Math.max(most, Math.abs(sample - plain[i])), 0)).toBeLessThan(0.003)
    const [full] = played({ values: { driveDb: 20, driveLevelDb: -4 }, choices: { driveKind } }, clip, { frames: 6000 })
    const [softer] = played({ values: { driveDb: 20, driveLevelDb: -15 }, choices: { driveKind } }, clip, { frames: 6000 })
    expect(20 * Math.log10(rms(softer) / rms(full))).toBeCloseTo(-11, 3)
    expect(full.subarray(4100).every((sample) => sample === 0)).toBe(true)
    expect(rms(full.subarray(3900, 3990))).toBeGreaterThan(0.1)
  }
})

test('what is silent stays silent, however much it is driven', () => {
  for (const driveKind of KINDS) {
    const [left] = played({ values: { driveDb: 60, driveAfterDb: 60 }, choices: { driveKind } }, new Float32Array(2000), { frames: 3000 })
    expect(Math.max(...left.map(Math.abs))).toBeLessThan(1e-9)
  }
})
