import { aKit, seeded } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import type { AllChoices } from '../../kit/parameters'
import type { Envelope } from '../../kit/shape'
import { EventType } from '../program/codes'
import { createOffline, renderOffline, toScore } from '../offline'

const RATE = 48000
type Kind = AllChoices['filter1Kind']
type Complex = readonly [re: number, im: number]

/** What a pad makes of samples, let go at a frame if it is held; the pan's share is taken off. */
function played(own: OwnSettings, samples: Float32Array, frames = samples.length, velocity = 127, letGo?: number): Float64Array {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels: [samples] }]] }])
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash))
  const [left] = renderOffline(
    engine,
    toScore([
      { frame: 0, type: EventType.strike, padSlot: loader.slotOf(rig.kit.pads[0].id), velocity, key: 1 },
      ...(letGo === undefined ? [] : [{ frame: letGo, type: EventType.release, padSlot: loader.slotOf(rig.kit.pads[0].id), key: 1 }]),
    ]),
    frames,
  )
  return Float64Array.from(left)
}

/** So low that nothing is held down at the ceiling. */
const LEVEL = 0.01

function impulse(frames: number): Float32Array {
  const samples = new Float32Array(frames)
  samples[0] = LEVEL
  return samples
}

/** The level of an impulse's answer at a frequency, dB. */
function levelDb(answer: Float64Array, hz: number): number {
  const [turnRe, turnIm] = [Math.cos((2 * Math.PI * hz) / RATE), Math.sin((2 * Math.PI * hz) / RATE)]
  let [re, im, re1, im1] = [0, 0, 1, 0]
  for (const sample of answer) {
    re += sample * re1
    im += sample * im1
    ;[re1, im1] = [re1 * turnRe - im1 * turnIm, re1 * turnIm + im1 * turnRe]
  }
  return 20 * Math.log10(Math.hypot(re, im) / LEVEL)
}

const over = (top: Complex, bottom: Complex) => Math.hypot(...top) / Math.hypot(...bottom)

/** The level of an analogue section, `s` its frequency in parts of the cutoff. */
function analogueDb(kind: Kind, s: number, damping: number, gainDb: number): number {
  const a = 10 ** (gainDb / 40)
  const root = Math.sqrt(a)
  const plain: Complex = [1 - s * s, damping * s]
  const level = {
    off: 1,
    lowPass: over([1, 0], plain),
    bandPass: over([0, damping * s], plain),
    highPass: over([-s * s, 0], plain),
    notch: over([1 - s * s, 0], plain),
    lowShelf: a * over([a - s * s, root * damping * s], [1 - a * s * s, root * damping * s]),
    highShelf: a * over([1 - a * s * s, root * damping * s], [a - s * s, root * damping * s]),
    peak: over([1 - s * s, a * damping * s], [1 - s * s, (damping / a) * s]),
  }[kind]
  return 20 * Math.log10(level)
}

const filterOf = (kind: Kind, hz: number, damping: number, gainDb = 0, slope: '12' | '24' = '12'): OwnSettings => ({
  choices: { filter1Kind: kind, filter1Slope: slope },
  values: { filter1CutoffHz: hz, filter1Damping: damping, filter1GainDb: gainDb },
})
const frequencies = Array.from({ length: 25 }, (_, i) => 30 * (18000 / 30) ** (i / 24))

test('shelves and peaks are their analogue prototypes: 0.1 dB to 10 kHz, 0.5 dB to 18 kHz', () => {
  const random = seeded(61)
  for (let i = 0; i < 45; i++) {
    const kind = (['lowShelf', 'highShelf', 'peak'] as const)[i % 3]
    const damping = kind === 'peak' ? 0.1 + 1.9 * random() : 1 + random()
    const [hz, gainDb] = [20 * 1000 ** random(), 48 * random() - 24]
    const answer = played(filterOf(kind, hz, damping, gainDb), impulse(hz < 100 || damping < 0.3 ? 24000 : 6000))
    for (const at of frequencies) {
      const off = Math.abs(levelDb(answer, at) - analogueDb(kind, at / hz, damping, gainDb))
      // Narrow peaks above 10 kHz may be out by a little more than a tenth of a dB below it.
      if (off > (at <= 10000 ? 0.16 : 0.5))
        throw new Error(`${kind} of ${gainDb} dB at ${hz} Hz, damping ${damping}: ${off} dB out at ${at} Hz`)
    }
  }
})

test('resonant shelves stay within half a dB to 10 kHz and 1.5 dB to 18 kHz', () => {
  const random = seeded(62)
  for (let i = 0; i < 20; i++) {
    const kind = (['lowShelf', 'highShelf'] as const)[i % 2]
    const [hz, damping, gainDb] = [500 * 32 ** random(), 0.05 + 0.9 * random(), 48 * random() - 24]
    const answer = played(filterOf(kind, hz, damping, gainDb), impulse(16000))
    for (const at of frequencies)
      expect(Math.abs(levelDb(answer, at) - analogueDb(kind, at / hz, damping, gainDb))).toBeLessThan(at <= 10000 ? 0.5 : 1.5)
  }
})

/** By how many times a shelf or peak is farther from its analogue prototype than it may be: 0.1 dB to 10 kHz, 0.5 dB to 18 kHz. */
function excessOf(kind: Kind, hz: number, damping: number, gainDb: number): number {
  const answer = played(filterOf(kind, hz, damping, gainDb), impulse(hz < 100 || damping < 0.3 ? 24000 : 6000))
  const offs = frequencies.map(
    (at) => Math.abs(levelDb(answer, at) - analogueDb(kind, at / hz, damping, gainDb)) / (at <= 10000 ? 0.1 : 0.5),
  )
  return Math.max(...offs)
}

test('at any damping of 0.3 and more hardly one of many shelves and peaks is beyond that', () => {
  const random = seeded(61)
  const beyond: unknown[] = []
  for (let i = 0; i < 90; i++) {
    const kind = (['lowShelf', 'highShelf', 'peak'] as const)[i % 3]
    const damping = kind === 'peak' ? 0.05 * 40 ** random() : 0.3 * 6.6 ** random()
    const [hz, gainDb] = [20 * 1000 ** random(), 48 * random() - 24]
    const excess = excessOf(kind, hz, damping, gainDb)
    if (excess > 1) beyond.push([kind, hz, damping, gainDb, excess])
    expect([kind, hz, damping, gainDb, excess < 1.6]).toEqual([kind, hz, damping, gainDb, true])
  }
  expect(beyond.length).toBeLessThanOrEqual(1)
})

test('of shelves that resonate more than any is used for nine in ten are, and none of another shape than theirs', () => {
  const random = seeded(62)
  let within = 0
  for (let i = 0; i < 60; i++) {
    const kind = (['lowShelf', 'highShelf'] as const)[i % 2]
    const [hz, damping, gainDb] = [500 * 32 ** random(), 0.05 * 6 ** random(), 48 * random() - 24]
    const excess = excessOf(kind, hz, damping, gainDb)
    if (excess <= 1) within++
    expect([kind, hz, damping, gainDb, excess, excess < 9]).toEqual([kind, hz, damping, gainDb, excess, true])
  }
  expect(within).toBeGreaterThanOrEqual(50)
})

test('a shelf or peak that lifts by nothing passes what comes, and a step of gain from there is small', () => {
  const random = seeded(66)
  for (const kind of ['lowShelf', 'highShelf', 'peak'] as const)
    for (let i = 0; i < 8; i++) {
      const [hz, damping] = [50 * 400 ** random(), 0.05 + 1.95 * random()]
      const still = played(filterOf(kind, hz, damping, 0), impulse(400))
      expect(Math.max(...still.map((sample, at) => Math.abs(sample - (at === 0 ? still[0] : 0))))).toBeLessThan(1e-9)
      expect(still[0]).toBeCloseTo(LEVEL, 9)
      for (const at of frequencies)
        expect(Math.abs(levelDb(played(filterOf(kind, hz, damping, 0.1), impulse(4000)), at))).toBeLessThan(Math.max(0.11, 0.15 / damping))
    }
})

test('passes and notches are theirs where the trapezoidal rule puts each frequency; damping is 1/Q at both slopes', () => {
  const random = seeded(63)
  const warped = (hz: number) => Math.tan((Math.PI * hz) / RATE)
  for (const kind of ['lowPass', 'highPass', 'bandPass', 'notch'] as const)
    for (const slope of ['12', '24'] as const)
      for (let i = 0; i < 4; i++) {
        const [hz, damping] = [80 * 150 ** random(), 0.3 + 1.7 * random()]
        const answer = played(filterOf(kind, hz, damping, 0, slope), impulse(12000))
        const pair = kind === 'lowPass' || kind === 'highPass' ? [1.8477590650225735, 0.5411961001461969 * damping] : [damping, damping]
        for (const at of frequencies) {
          const s = warped(at) / warped(hz)
          const expected = (slope === '24' ? pair : [damping]).reduce((sum, k) => sum + analogueDb(kind, s, k, 0), 0)
          if (expected > -70) expect(Math.abs(levelDb(answer, at) - expected)).toBeLessThan(0.02)
        }
        if (kind.endsWith('Pass') && kind !== 'bandPass') expect(levelDb(answer, hz)).toBeCloseTo(-20 * Math.log10(damping), 2)
      }
})

test('a slope of 24 dB falls twice as fast; gains of shelves and peaks are the same at both slopes', () => {
  const fall = (slope: '12' | '24') => {
    const answer = played(filterOf('lowPass', 500, Math.SQRT2, 0, slope), impulse(6000))
    return levelDb(answer, 2000) - levelDb(answer, 4000)
  }
  expect(fall('24') / fall('12')).toBeCloseTo(2, 1)
  for (const slope of ['12', '24'] as const) {
    expect(levelDb(played(filterOf('lowShelf', 1000, Math.SQRT2, -12, slope), impulse(12000)), 30)).toBeCloseTo(-12, 1)
    expect(levelDb(played(filterOf('peak', 1000, 1, 9, slope), impulse(6000)), 1000)).toBeCloseTo(9, 2)
    expect(levelDb(played(filterOf('highShelf', 1000, Math.SQRT2, 8, slope), impulse(12000)), 1000)).toBeCloseTo(4, 1)
  }
})

test('two filters follow each other, each by its own numbers and envelope, in the order that is asked for', () => {
  const own: OwnSettings = {
    choices: { filter1Kind: 'highPass', filter2Kind: 'peak' },
    values: { filter1CutoffHz: 300, filter1Damping: 1, filter2CutoffHz: 2500, filter2Damping: 0.6, filter2GainDb: 10 },
  }
  const answer = played(own, impulse(6000))
  const first = played(filterOf('highPass', 300, 1), impulse(6000))
  const second = played(filterOf('peak', 2500, 0.6, 10), impulse(6000))
  for (const at of frequencies) expect(Math.abs(levelDb(answer, at) - levelDb(first, at) - levelDb(second, at))).toBeLessThan(1e-3)
  const moved = { ...own, envelopes: { filter2: { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.01, value: 0, bend: 0 }] } } } // prettier-ignore
  const swept = { ...moved, values: { ...own.values, filter2EnvelopeCents: 2400 } }
  const turned = played({ ...swept, order: ['filter2', 'filter1', 'transient', 'drive', 'crush'] }, impulse(6000))
  const straight = played(swept, impulse(6000))
  expect(straight.some((sample, i) => Math.abs(sample - answer[i]) > 1e-3)).toBe(true)
  expect(turned.some((sample, i) => Math.abs(sample - straight[i]) > 1e-6)).toBe(true)
})

/** The cutoff in cents over the set one, at a frame: the formula of envelopes, by itself. */
function centsAt({ points }: Envelope, reach: number, frame: number): number {
  const next = points.findIndex(({ seconds }) => frame < seconds * RATE)
  if (next === 0) return reach * points[0].value
  if (next < 0) return reach * points[points.length - 1].value
  const [from, to] = [points[next - 1], points[next]]
  const [begin, end] = [from.seconds * RATE, to.seconds * RATE]
  const u = (frame - begin) / (end - begin)
  return reach * (from.value + ((to.value - from.value) * u) / (u + 64 ** to.bend * (1 - u)))
}

/** The trapezoidal filter with numbers of its own for every sample. */
function eachSample(samples: Float32Array, kind: Kind, damping: number, cutoffOf: (frame: number) => number): Float64Array {
  let [one, two] = [0, 0]
  return Float64Array.from(samples, (input, frame) => {
    const g = Math.tan((Math.PI * Math.min(0.49 * RATE, Math.max(5, cutoffOf(frame)))) / RATE)
    const band = (one + g * (input - two)) / (1 + g * (g + damping))
    const low = two + g * band
    one = 2 * band - one
    two = 2 * low - two
    return { lowPass: low, bandPass: damping * band, highPass: input - damping * band - low, notch: input - damping * band }[
      kind as 'notch'
    ]
  })
}

test('a moving cutoff leaves at most -60 dB against a filter that is set anew for every sample, up to four octaves in a millisecond', () => {
  const random = seeded(64)
  const noise = Float32Array.from({ length: 9600 }, () => 0.5 * random() - 0.25)
  for (let i = 0; i < 24; i++) {
    const kind = (['lowPass', 'bandPass', 'highPass', 'notch'] as const)[i % 4]
    const [hz, damping, reach] = [200 * 10 ** random(), 0.2 + 1.6 * random(), 9600 * random() - 4800]
    const fall = i < 4 ? 0.001 : 0.002 * 60 ** random()
    const bend = 1.6 * random() - 0.8
    const envelope = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.02 * random(), value: 1, bend: 0 }, { seconds: 0.02 + fall, value: 0, bend }] } // prettier-ignore
    const own = { ...filterOf(kind, hz, damping), envelopes: { filter1: envelope } }
    const ours = played({ ...own, values: { ...own.values, filter1EnvelopeCents: reach } }, noise)
    const theirs = eachSample(noise, kind, damping, (frame) => hz * 2 ** (centsAt(envelope, reach, frame) / 1200))
    let [rest, all] = [0, 0]
    theirs.forEach((sample, at) => {
      rest += (sample - ours[at]) ** 2
      all += sample ** 2
    })
    expect(10 * Math.log10(rest / all)).toBeLessThan(-60)
  }
})

test('a filter of any kind whose cutoff moves slowly stays within -90 dB of one that is looked at every 16 frames', () => {
  const random = seeded(67)
  const noise = Float32Array.from({ length: 9600 }, () => 0.5 * random() - 0.25)
  // What may be moved at any time is looked at as often as anything: a wheel that rests moves nothing.
  const responses: OwnSettings['responses'] = [{ id: 'rests', draw: 1, from: { kind: 'wheel' }, to: [{ param: 'filter1CutoffHz' }], amount: 100, bypass: false }] // prettier-ignore
  let parted = 0
  for (let i = 0; i < 42; i++) {
    const kind = (['lowPass', 'bandPass', 'highPass', 'notch', 'lowShelf', 'highShelf', 'peak'] as const)[i % 7]
    const filtered = filterOf(kind, 60 * 200 ** random(), 0.05 * 40 ** random(), 48 * random() - 24, random() < 0.5 ? '12' : '24')
    const filter1 = { points: [{ seconds: 0, value: 1, bend: 1.6 * random() - 0.8 }, { seconds: 0.02 + 0.3 * random(), value: 0, bend: 0 }] } // prettier-ignore
    const reach = 10 * 300 ** random() * (random() < 0.5 ? -1 : 1)
    const own = { ...filtered, envelopes: { filter1 }, values: { ...filtered.values, filter1EnvelopeCents: reach, gainDb: -40 } }
    const [ours, theirs] = [played(own, noise), played({ ...own, responses }, noise)]
    const power = (of: Float64Array) => of.reduce((sum, sample) => sum + sample ** 2, 0)
    const rest = 10 * Math.log10(power(ours.map((sample, at) => sample - theirs[at])) / power(theirs))
    if (rest > -200) parted++
    expect([kind, own, rest < -90]).toEqual([kind, own, true])
  }
  expect(parted).toBeGreaterThan(10) // long cells were there to be held against short ones
})

test('a turn of the cutoff that is over within a moment is heard, wherever it lies', () => {
  const random = seeded(69)
  const noise = Float32Array.from({ length: 4800 }, () => 0.5 * random() - 0.25)
  for (let i = 0; i < 40; i++) {
    const begin = (300 + 4000 * random()) / RATE
    const width = (4 + 60 * random()) / RATE
    const points = [0, 1, 0].map((value, at) => ({ seconds: begin + at * width, value, bend: 0 }))
    const own = { ...filterOf('lowPass', 500, 1), envelopes: { filter1: { points } } }
    const ours = played({ ...own, values: { ...own.values, filter1EnvelopeCents: 3600 } }, noise)
    const theirs = eachSample(noise, 'lowPass', 1, (frame) => 500 * 2 ** (centsAt({ points }, 3600, frame) / 1200))
    expect(Math.max(...theirs.map((sample, at) => Math.abs(sample - ours[at])))).toBeLessThan(1e-4)
  }
})

test('a cutoff that waits sets out as soon as it is let go', () => {
  const random = seeded(68)
  const noise = Float32Array.from({ length: 9600 }, () => 0.5 * random() - 0.25)
  const still = {
    points: [
      { seconds: 0, value: 1, bend: 0 },
      { seconds: 1, value: 1, bend: 0 },
    ],
    sustain: 0,
  }
  for (let i = 0; i < 12; i++) {
    const [letGo, reach] = [3000 + Math.floor(2000 * random()), 4800 * (random() - 0.5)]
    const filter1 = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.02 + 0.03 * random(), value: 0, bend: 0 }], sustain: 0 } // prettier-ignore
    const own: OwnSettings = { ...filterOf('lowPass', 1000, 1), mode: 'hold', envelopes: { level: still, filter1 } }
    const ours = played({ ...own, values: { ...own.values, filter1EnvelopeCents: reach } }, noise, 9600, 127, letGo)
    const frames = filter1.points[1].seconds * RATE
    const shareAt = (frame: number) => Math.min(1, Math.max(0, 1 - (frame - letGo) / frames))
    const theirs = eachSample(noise, 'lowPass', 1, (frame) => 1000 * 2 ** ((reach * shareAt(frame)) / 1200))
    expect(Math.max(...theirs.map((sample, at) => Math.abs(sample - ours[at])))).toBeLessThan(1e-5)
  }
})

test('every kind at any cutoff, damping and gain, moved as far as can be, dies away', () => {
  const random = seeded(65)
  const noise = new Float32Array(12000).map((_, i) => (i < 3000 ? random() - 0.5 : 0))
  for (let i = 0; i < 60; i++) {
    const kind = (['lowPass', 'bandPass', 'highPass', 'notch', 'lowShelf', 'highShelf', 'peak'] as const)[i % 7]
    const own = filterOf(kind, 10 * 2400 ** random(), 0.05 + 1.95 * random(), 48 * random() - 24, random() < 0.5 ? '12' : '24')
    const points = Array.from({ length: 6 }, (_, at) => ({
      seconds: at * 0.02 * random(),
      value: 2 * random() - 1,
      bend: 2 * random() - 1,
    }))
    const filter1 = { points: points.sort((a, b) => a.seconds - b.seconds) }
    const answer = played({ ...own, envelopes: { filter1 }, values: { ...own.values, filter1EnvelopeCents: 24000 * (random() - 0.5), gainDb: -40 } }, noise) // prettier-ignore
    expect(answer.every((sample) => Number.isFinite(sample) && Math.abs(sample) < 1)).toBe(true)
  }
})
