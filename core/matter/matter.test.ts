import { pitchOf } from '../cut'
import { matterValues } from '../kit/matter-values'
import type { MatterKind, MatterStep } from '../kit/matter-values'
import { findAttacks, partSound, workMatter } from '.'
import { createDraws } from './random'
import { bandLevelDb, differenceDb, madeStrike, noiseOf, RATE } from './testing'

const step = (kind: MatterKind, values: Record<string, number> = {}, more: Partial<MatterStep> = {}): MatterStep => ({
  id: `a-${kind}`,
  kind,
  values,
  bypass: false,
  ...more,
})

const worked = (
  channels: Float32Array[],
  steps: MatterStep[],
  more: { semitones?: number; strikes?: number[]; tempoBpm?: number } = {},
) => {
  const result = workMatter({ audio: { sampleRateHz: RATE, channels }, startFrame: 0, steps, tempoBpm: 120, ...more })
  if (!result.ok) throw new Error(result.message)
  return result.audio.channels
}
const refusal = (channels: Float32Array[], steps: MatterStep[], rate = RATE) => {
  const result = workMatter({ audio: { sampleRateHz: rate, channels }, startFrame: 0, steps, tempoBpm: 120 })
  return result.ok ? 'not refused' : result.message
}

const levelDb = (samples: Float32Array, from: number, to: number) =>
  10 * Math.log10(samples.subarray(from, to).reduce((sum, sample) => sum + sample * sample, 1e-20) / (to - from))
/** The last frame at which a sound is within 40 dB of its loudest. */
const lastLoud = (samples: Float32Array) => {
  const peak = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
  return samples.findLastIndex((sample) => Math.abs(sample) > peak / 100)
}

describe('parting', () => {
  test.each([1, 2, 3])('both parts add up to the source within -90 dB, in stereo too (%i)', (seed) => {
    const strike = madeStrike({ hz: 180 * seed, seconds: 0.4, noise: 0.3, seed })
    const other = strike.map((sample, i) => 0.5 * sample + (strike[i - 7] ?? 0) * 0.3)
    const [a, b] = [
      worked([strike, other], [step('ringing', { divideHz: 200 })]),
      worked([strike, other], [step('noise', { divideHz: 200 })]),
    ]
    for (const [i, source] of [strike, other].entries())
      expect(
        differenceDb(
          source,
          a[i]!.map((sample, frame) => sample + b[i]![frame]!),
        ),
      ).toBeLessThan(-90)
  })

  test('tones go to the ringing, noise to the noise', () => {
    const tones = madeStrike({ hz: 700, seconds: 0.5, noise: 0, seed: 4 })
    const noise = noiseOf(tones.length, 5).map((sample, i) => 0.05 * sample * Math.exp(-i / (0.15 * RATE)))
    const { ringing, noise: rest } = partSound([tones.map((sample, i) => sample + noise[i]!)], RATE, { divideHz: 0, steadySeconds: 0.03 })
    expect(differenceDb(tones, ringing[0]!)).toBeLessThan(-10)
    expect(differenceDb(noise, rest[0]!)).toBeLessThan(-6)
  })

  test('below the divide all is ringing', () => {
    const deep = noiseOf(RATE, 6, 80)
    const { noise } = partSound([deep], RATE, { divideHz: 2000, steadySeconds: 0.03 })
    expect(levelDb(noise[0]!, 0, RATE) - levelDb(deep, 0, RATE)).toBeLessThan(-30)
  })
})

describe('length and pitch apart', () => {
  const strike = madeStrike({ hz: 220, seconds: 0.5, noise: 0.2, seed: 1, lead: 2400 })

  test('at its own length and pitch every sample is as it was', () => {
    expect(worked([strike], [step('time')])[0]).toEqual(strike)
  })

  test.each([10, 50, 75, 150, 200, 400, 1000])('%i %% is as long as it says, decays as much longer and keeps its pitch', (percent) => {
    const [out] = worked([strike], [step('time', { lengthPercent: percent })])
    expect(out).toHaveLength(Math.round((strike.length * percent) / 100))
    if (percent < 50 || percent > 400) return
    const ends = (lastLoud(out!) - 2400 * (percent / 100)) / (lastLoud(strike) - 2400)
    expect(ends / (percent / 100)).toBeGreaterThan(0.85)
    expect(ends / (percent / 100)).toBeLessThan(1.15)
    const from = Math.round(2400 * (percent / 100))
    const [was, is] = [pitchOf(strike.subarray(2400), RATE)!, pitchOf(out!.subarray(from), RATE)!]
    expect(Math.abs(1200 * Math.log2(is.hz / was.hz))).toBeLessThan(8)
  })

  test.each([-1200, -500, 300, 700, 1200])('%i cents move the pitch by so much, and the length not at all', (cents) => {
    const [out] = worked([strike], [step('time', { pitchCents: cents })])
    expect(out).toHaveLength(strike.length)
    const [was, is] = [pitchOf(strike.subarray(2400), RATE)!, pitchOf(out!.subarray(2400), RATE)!]
    expect(Math.abs(1200 * Math.log2(is.hz / was.hz) - cents)).toBeLessThan(10)
  })

  test.each([50, 150, 400])('at %i %% the attack is the source to the sample, and nothing of it is heard before', (percent) => {
    const [out] = worked([strike], [step('time', { lengthPercent: percent })])
    const [attack] = findAttacks([strike], RATE)
    const at = Math.round((attack! * percent) / 100)
    for (let i = 0; i < 170; i++) expect(out![at + i]).toBeCloseTo(strike[attack! + i]!, 6)
    expect(levelDb(out!, at - 960, at - 20) - levelDb(out!, at, at + 960)).toBeLessThan(-50)
  })

  test('of several strikes each is where it belongs, once', () => {
    const row = new Float32Array(3 * RATE)
    const places = [4800, 28_000, 52_800, 96_000]
    for (const place of places) row.set(strike.subarray(2400, 2400 + 20_000), place)
    const [out] = worked([row], [step('time', { lengthPercent: 170 })])
    const found = findAttacks([out!], RATE)
    expect(found).toHaveLength(places.length)
    found.forEach((frame, i) => expect(Math.abs(frame - places[i]! * 1.7)).toBeLessThan(60))
  })

  test('in beats it is as long as the tempo says', () => {
    expect(worked([strike], [step('time', { beats: 2 })], { tempoBpm: 90 })[0]).toHaveLength(Math.round((2 * 60 * RATE) / 90))
  })

  test('the two sides of a sound stay together', () => {
    const right = strike.map((sample) => -0.5 * sample)
    const [a, b] = worked([strike, right], [step('time', { lengthPercent: 300, pitchCents: 200 })])
    expect(
      differenceDb(
        a!,
        b!.map((sample) => -2 * sample),
      ),
    ).toBeLessThan(-80)
  })

  test('the same length at every note, and the pitch of the note', () => {
    for (const semitones of [-12, -3, 5, 12]) {
      const [out] = worked([strike], [step('time', { sameLength: 1 })], { semitones })
      expect(out).toHaveLength(strike.length)
      const [was, is] = [pitchOf(strike.subarray(2400), RATE)!, pitchOf(out!.subarray(2400), RATE)!]
      expect(Math.abs(1200 * Math.log2(is.hz / was.hz) - 100 * semitones)).toBeLessThan(12)
    }
  })
})

describe('speed along the hit', () => {
  const strike = madeStrike({ hz: 300, seconds: 1, noise: 0.05, seed: 2 })

  test('half the speed from a moment on makes what is behind it twice as long', () => {
    const curve = [{ seconds: 0.2, value: 100 }, { seconds: 0.2001, value: 50 }] // prettier-ignore
    const [out] = worked([strike], [step('time', {}, { curve })])
    expect(Math.abs(out!.length - (0.2 * RATE + 2 * (strike.length - 0.2 * RATE)))).toBeLessThan(0.01 * RATE)
  })

  test('a standstill sounds on: as loud at its end as at its start, at the pitch it had', () => {
    const curve = [{ seconds: 0, value: 100 }, { seconds: 0.25, value: 100 }, { seconds: 0.3, value: 0 }] // prettier-ignore
    const [out] = worked([strike], [step('time', {}, { curve })])
    const end = out!.length
    expect(end).toBeGreaterThan(4 * RATE)
    expect(Math.abs(levelDb(out!, end - RATE, end - 2048) - levelDb(out!, RATE, 2 * RATE))).toBeLessThan(1.5)
    const [was, is] = [pitchOf(strike, RATE)!, pitchOf(out!.subarray(2 * RATE), RATE)!]
    expect(Math.abs(1200 * Math.log2(is.hz / was.hz))).toBeLessThan(12)
  })
})

describe('noise, grains and resonances', () => {
  const noise = noiseOf(RATE, 9, 1500).map((sample, i) => 0.3 * sample * Math.exp(-i / (0.3 * RATE)))

  test('noise made anew has the levels of what it is made of, three times as long, and is another with each draw', () => {
    const make = (draw: number) => worked([noise], [step('noise', { anew: 1, lengthPercent: 300, keepMs: 0, draw })])[0]!
    const [one, same, other] = [make(1), make(1), make(2)]
    expect(one).toEqual(same)
    expect(differenceDb(one, other)).toBeGreaterThan(0)
    expect(one).toHaveLength(3 * noise.length)
    const apart = [300, 1500, 5000].flatMap((hz) =>
      [0.1, 0.25, 0.4, 0.55, 0.7].map((moment) => {
        const [from, length] = [Math.round(moment * RATE), Math.round(0.12 * RATE)]
        return bandLevelDb(one.subarray(3 * from, 3 * (from + length)), hz) - bandLevelDb(noise.subarray(from, from + length), hz)
      }),
    )
    expect(Math.abs(apart.reduce((sum, db) => sum + db, 0) / apart.length)).toBeLessThan(2)
    expect(Math.max(...apart.map(Math.abs))).toBeLessThan(8)
  })

  test('grains are as long, as loud (within 3 dB) and as high as what they are taken from; strays change pitch', () => {
    const tone = Float32Array.from({ length: RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 440 * i) / RATE))
    const [out] = worked([tone], [step('grains', { lengthPercent: 250, strayMs: 20 })])
    expect(out).toHaveLength(2.5 * RATE)
    expect(Math.abs(levelDb(out!, RATE, 2 * RATE) - levelDb(tone, 1000, RATE - 1000))).toBeLessThan(3)
    const around = (samples: Float32Array) =>
      bandLevelDb(samples.subarray(RATE, RATE + 24_000), 440) - bandLevelDb(samples.subarray(RATE, RATE + 24_000), 700)
    const [strayed] = worked([tone], [step('grains', { lengthPercent: 250, strayMs: 20, strayCents: 900 })])
    expect(around(out!) - around(strayed!)).toBeGreaterThan(15)
  })

  test('fewer than one grain at once leaves silence between them', () => {
    const [out] = worked([noise], [step('grains', { atOnce: 0.25, grainMs: 20, keepMs: 0 })])
    expect(out!.filter((sample) => sample === 0).length / out!.length).toBeGreaterThan(0.6)
  })

  test('resonances move and partials stay', () => {
    const buzz = new Float32Array(RATE)
    for (let hz = 110; hz < 8000; hz += 110) {
      const level = 1 / (1 + ((hz - 1000) / 250) ** 2) + 0.005
      for (let i = 0; i < RATE; i++) buzz[i]! += 0.05 * level * Math.sin((2 * Math.PI * hz * i) / RATE + hz)
    }
    const [out] = worked([buzz], [step('resonances', { movePercent: 200 })])
    const part = (samples: Float32Array, hz: number) => bandLevelDb(samples.subarray(12_000, 36_000), hz)
    expect(part(buzz, 990) - part(buzz, 1980)).toBeGreaterThan(10)
    expect(part(out!, 1980) - part(out!, 990)).toBeGreaterThan(6)
    const { hz } = pitchOf(out!, RATE)!
    expect(Math.abs(1200 * Math.log2(hz / (110 * Math.round(hz / 110))))).toBeLessThan(8)
  })
})

test('a part is worked and what is around it stays as it is', () => {
  const strike = madeStrike({ hz: 250, seconds: 0.8, noise: 0.1, seed: 3 })
  const part = { startFrame: 12_000, endFrame: 24_000 }
  const [out] = worked([strike], [step('time', { lengthPercent: 200 }, { part })])
  expect(out).toHaveLength(strike.length + 12_000)
  expect(out!.subarray(0, 12_000)).toEqual(strike.subarray(0, 12_000))
  expect(out!.subarray(36_000)).toEqual(strike.subarray(24_000))
})

describe('any settings', () => {
  const random = createDraws(77)
  const anyStep = (i: number): MatterStep => {
    const kinds = Object.keys(matterValues) as MatterKind[]
    const kind = kinds[Math.floor(kinds.length * random())]!
    const values = Object.fromEntries(
      Object.entries(matterValues[kind]).filter(() => random() < 0.6).map(([name, { least, most }]) => [name, random() < 0.2 ? (random() < 0.5 ? least : most) : least + (most - least) * random() ** 2]),
    ) // prettier-ignore
    const curve = random() < 0.3 ? [0, 1, 2].map((at) => ({ seconds: at * 0.1 * random(), value: 300 * random() })) : undefined
    const part = random() < 0.3 ? { startFrame: Math.floor(3000 * random()), endFrame: 3500 + Math.floor(3000 * random()) } : undefined
    return { id: `s${i}`, kind, values, bypass: random() < 0.1, ...(curve ? { curve } : {}), ...(part ? { part } : {}) }
  }

  test.each(Array.from({ length: 40 }, (_, i) => i))('random steps %i give finite samples or a sentence', (i) => {
    const sound =
      random() < 0.5
        ? madeStrike({ hz: 60 + 900 * random(), seconds: 0.15, noise: random(), seed: i })
        : noiseOf(20 + Math.floor(9000 * random()), i)
    const steps = Array.from({ length: 1 + Math.floor(2 * random()) }, (_, at) => anyStep(at))
    const result = workMatter({ audio: { sampleRateHz: RATE, channels: [sound] }, startFrame: 0, steps, tempoBpm: 100 })
    if (!result.ok) expect(result.message).toMatch(/\. [A-Z].*\.$/)
    else
      for (const channel of result.audio.channels)
        expect(channel.every((sample) => Number.isFinite(sample) && Math.abs(sample) < 100)).toBe(true)
  })

  test('what is bypassed does nothing', () => {
    const strike = madeStrike({ hz: 200, seconds: 0.2, noise: 0.2, seed: 8 })
    expect(worked([strike], [{ ...step('grains', { strayMs: 50 }), bypass: true }])[0]).toEqual(strike)
  })
})

describe('what cannot be worked is said', () => {
  test.each([
    ['silence', new Float32Array(1000), [], /silent.*Take another part/],
    ['three samples', Float32Array.of(0.1, 0.9, 0.2), [], /3 frames long.*16 frames/],
    ['an hour', new Float32Array(3600 * 100).fill(0.1), [], /3600 s long.*up to 120 s.*Cut the hit out/],
    ['ten times half a minute', new Float32Array(3000).fill(0.1), [step('time', { lengthPercent: 1000 })], /300 s long/],
    [
      'a number out of range',
      new Float32Array(1000).fill(0.1),
      [step('time', { lengthPercent: 5 })],
      /lengthPercent of time goes from 10 to 1000, not 5/,
    ],
    [
      'a name that is not there',
      new Float32Array(1000).fill(0.1),
      [step('time', { wobble: 5 })],
      /time has no wobble; it has lengthPercent/,
    ],
    ['what is no number', new Float32Array(1000).fill(NaN), [], /not numbers/],
  ] as const)('%s', (_, sound, steps, words) => {
    expect(refusal([sound], [...steps], 100)).toMatch(words)
  })

  test('DC alone is worked: it stays finite and as long as it says', () => {
    const [out] = worked([new Float32Array(4000).fill(0.5)], [step('time', { lengthPercent: 200 })])
    expect(out).toHaveLength(8000)
    expect(out!.every((sample) => Number.isFinite(sample) && Math.abs(sample) < 1.5)).toBe(true)
  })
})
