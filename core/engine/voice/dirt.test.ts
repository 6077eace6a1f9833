import { aKit, seeded } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000

interface How {
  readonly frames?: number
  readonly block?: number
  readonly isPlain?: boolean
  readonly moves?: readonly { frame: number; note: number; velocity: number }[]
}

function played(
  own: OwnSettings,
  channels: Float32Array[],
  { frames, block = 128, isPlain = false, moves = [] }: How = {},
): Float32Array[] {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels }]] }])
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash), rig.kit.seed, undefined, isPlain)
  const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(rig.kit.pads[0].id), velocity: 127 }
  const events = [strike, ...moves.map((move) => ({ ...move, type: EventType.controller, padSlot: 0 }))]
  return renderOffline(engine, toScore(events), frames ?? channels[0].length, block)
}

function noise(frames: number, seed: number): Float32Array {
  const random = seeded(seed)
  return Float32Array.from({ length: frames }, () => random() - 0.5)
}

/** By how much two sounds differ at most. */
function farthest(one: Float32Array, other: ArrayLike<number>): number {
  return one.reduce((most, sample, i) => Math.max(most, Math.abs(sample - other[i])), 0)
}

test('samples are taken at the lower rate, rounded to the bits and held, as a plain model does it; mixed by its share', () => {
  const random = seeded(41)
  const clip = noise(4000, 42)
  for (let i = 0; i < 20; i++) {
    const [crush, crushBits, crushRateHz] = [0.1 + 0.9 * random(), 1 + Math.floor(15 * random()), 300 + 60000 * random()]
    const [left] = played({ values: { crush, crushBits, crushRateHz } }, [clip])
    const levels = 2 ** (crushBits - 1)
    let [phase, held] = [1, 0]
    const expected = clip.map((sample) => {
      phase += Math.min(1, crushRateHz / RATE)
      if (phase >= 1) {
        held = Math.floor(sample * levels + 0.5) / levels
        phase -= 1
      }
      return sample + crush * (held - sample)
    })
    expect(farthest(left, expected)).toBeLessThan(1e-6)
  }
})

/** The power of a sound in a range of frequencies, dB, by plain sums over 2048 frames. */
function powerDb(samples: Float32Array, fromHz: number, toHz: number): number {
  let sum = 0
  const count = 2048
  for (let bin = Math.ceil((fromHz * count) / RATE); bin <= (toHz * count) / RATE; bin += 2) {
    let [re, im] = [0, 0]
    for (let i = 0; i < count; i++) {
      const w = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / count)
      re += w * samples[2000 + i] * Math.cos((2 * Math.PI * bin * i) / count)
      im += w * samples[2000 + i] * Math.sin((2 * Math.PI * bin * i) / count)
    }
    sum += re * re + im * im
  }
  return 10 * Math.log10(sum)
}

test('its own filter takes away what the lower rate folds, and keeps what lies below', () => {
  const tone = Float32Array.from({ length: 9000 }, (_, i) => 0.3 * Math.sin((2 * Math.PI * 700 * i) / RATE))
  const values = { crush: 1, crushBits: 16, crushRateHz: 8000 }
  const [raw] = played({ values }, [tone])
  const [held] = played({ values, choices: { crushFilter: 'on' } }, [tone])
  expect(powerDb(held, 5000, 20000) - powerDb(raw, 5000, 20000)).toBeLessThan(-12)
  expect(Math.abs(powerDb(held, 650, 750) - powerDb(raw, 650, 750))).toBeLessThan(0.5)
})

test('width turns two channels towards each other or apart, one channel stays; a low cut falls by 12 dB an octave', () => {
  const [left, right] = [noise(3000, 43), noise(3000, 44)]
  for (const width of [0, 0.3, 1.7]) {
    const [outLeft, outRight] = played({ values: { width } }, [left, right])
    const side = left.map((sample, i) => 0.5 * width * (sample - right[i]))
    const middle = left.map((sample, i) => 0.5 * (sample + right[i]))
    expect(farthest(outLeft, middle.map((sample, i) => sample + side[i]))).toBeLessThan(1e-6) // prettier-ignore
    expect(farthest(outRight, middle.map((sample, i) => sample - side[i]))).toBeLessThan(1e-6) // prettier-ignore
    expect(played({ values: { width } }, [left])[0]).toEqual(left)
  }
  const impulse = new Float32Array(12000)
  impulse[0] = 0.1
  const [cut] = played({ values: { lowCutHz: 400 } }, [impulse])
  const level = (hz: number) => {
    let [re, im] = [0, 0]
    cut.forEach((sample, i) => {
      re += sample * Math.cos((2 * Math.PI * hz * i) / RATE)
      im += sample * Math.sin((2 * Math.PI * hz * i) / RATE)
    })
    return 20 * Math.log10(Math.hypot(re, im) / 0.1)
  }
  expect(level(400)).toBeCloseTo(-3.01, 1)
  expect(level(50) - level(100)).toBeCloseTo(-12, 0)
  expect(level(4000)).toBeCloseTo(0, 1)
})

test('dirt, width and low cut follow a wheel, the same in every block and in both forms', () => {
  const to = (param: 'crush' | 'crushBits' | 'crushRateHz' | 'width' | 'lowCutHz', amount: number) => ({ id: param, draw: 0, from: { kind: 'wheel' as const }, to: [{ param }], amount, bypass: false }) // prettier-ignore
  const own: OwnSettings = {
    values: { crush: 0.2, crushBits: 12, crushRateHz: 20000, tuneCents: 50 },
    choices: { crushFilter: 'on' },
    responses: [to('crush', 0.8), to('crushBits', -8), to('crushRateHz', -3000), to('width', -0.8), to('lowCutHz', 9000)],
  }
  const clip = [noise(9000, 45), noise(9000, 46)]
  const moves = [0, 700, 1500, 4000].map((frame, i) => ({ frame, note: 1, velocity: 127 * (0.2 + 0.25 * i) }))
  const sound = played(own, clip, { moves })
  expect(played(own, clip, { moves, block: 37 })).toEqual(sound)
  expect(played(own, clip, { moves, isPlain: true })).toEqual(sound)
  expect(sound[0]).not.toEqual(played(own, clip)[0])
})
