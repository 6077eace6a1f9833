import { besideSine, SPECTRUM_SPAN as SPAN } from '../../audio/sine-spectrum'
import { aKit, seeded } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import { responseTo } from '../../kit/responses'
import type { Envelope } from '../../kit/shape'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

/** What is judged here is judged from outside: by spectra and by sums of the formulas, not by the tables that read. */
const FROM = 2048
const GAIN_DB = -6.020599913279624

interface Told {
  readonly clipHz: number
  readonly engineHz: number
  readonly own: OwnSettings
  readonly samples: Float32Array
}

function played({ clipHz, engineHz, own, samples }: Told, frames: number, strikeAt = 0) {
  const gain = { ...own, values: { gainDb: GAIN_DB, ...own.values } }
  const { kit, audio } = aKit([{ own: gain, bands: [[{ sampleRateHz: clipHz, channels: [samples] }]] }])
  const { engine } = createOffline(kit, engineHz, (hash) => audio.get(hash))
  const strike = { frame: strikeAt, type: EventType.strike, padSlot: 0, velocity: 127 }
  const [left] = renderOffline(engine, toScore([strike]), frames)
  return { engine, heard: Float64Array.from(left, (sample) => 2 * sample) }
}

const sine = (hz: number, rateHz: number, frames: number) =>
  Float32Array.from({ length: frames }, (_, i) => Math.sin((2 * Math.PI * hz * i) / rateHz))

const spectrumOf = (heard: Float64Array, hz: number, rateHz: number) => besideSine(heard.subarray(FROM, FROM + SPAN), hz, rateHz)

test.each([44100, 48000])('at an engine’s %s Hz nothing folds or mirrors, and nothing below 16 kHz is lost', (engineHz) => {
  const random = seeded(engineHz + 20261126)
  for (const clipHz of [44100, 48000, 96000])
    for (let i = 0; i < 14; i++) {
      const pitch = [1.41, 1.95, 3.9, 1.0001, 0.9999][i] ?? 0.25 * 16 ** random()
      const hz = (i % 2 === 0 ? 0.7 + 0.3 * random() : random()) * (pitch < 1 ? 20000 : 0.49 * clipHz)
      const samples = sine(hz, clipHz, Math.ceil(((SPAN + FROM + 4000) / engineHz) * clipHz * Math.max(1, pitch)))
      const told = { clipHz, engineHz, own: { values: { tuneCents: 1200 * Math.log2(pitch) } }, samples }
      const { unwantedDb, levelDb } = spectrumOf(played(told, FROM + SPAN).heard, hz * pitch, engineHz)
      const name = `${clipHz} Hz at ${pitch}, sine of ${hz} Hz`
      expect({ name, isClean: unwantedDb < -98 }).toEqual({ name, isClean: true })
      if (hz < 16000 && hz * pitch < 16000) expect({ name, isKept: Math.abs(levelDb) < 0.15 }).toEqual({ name, isKept: true })
    }
})

test('a glide over four octaves is the sine it should be at every sample, whatever tables and levels it passes', () => {
  const rate = 48000
  const seconds = 4
  for (const [fromCents, toCents] of [
    [-2400, 2400],
    [2400, -2400],
  ] as const) {
    // prettier-ignore
    const pitch: Envelope = { points: [{ seconds: 0, value: fromCents, bend: 0 }, { seconds, value: toCents, bend: 0 }] } // prettier-ignore
    const hz = 3900
    const { heard } = played(
      { clipHz: rate, engineHz: rate, own: { envelopes: { pitch } }, samples: sine(hz, rate, 8 * rate) },
      seconds * rate,
    )
    let position = 0
    let worst = 0
    for (let i = 0; i < seconds * rate; i++) {
      if (i > 200) worst = Math.max(worst, Math.abs(heard[i] - Math.sin((2 * Math.PI * hz * position) / rate)))
      position += 2 ** ((fromCents + ((toCents - fromCents) * i) / (seconds * rate)) / 1200)
    }
    expect(20 * Math.log10(worst)).toBeLessThan(-90)
  }
})

test('what a glide loses at the top it loses without a step from one table to the next', () => {
  const rate = 44100
  const pitch: Envelope = { points: [{ seconds: 0, value: 0, bend: 0 }, { seconds: 4, value: 200, bend: 0 }] } // prettier-ignore
  const hz = 18200 // where each table loses more than the one before
  const { heard } = played({ clipHz: rate, engineHz: rate, own: { envelopes: { pitch } }, samples: sine(hz, rate, 6 * rate) }, 4 * rate)
  // The level of the sine, read from two neighbours in quadrature to its known phase.
  const phases = new Float64Array(4 * rate)
  let position = 0
  for (let i = 0; i < phases.length; i++) {
    phases[i] = (2 * Math.PI * hz * position) / rate
    position += 2 ** ((200 * i) / phases.length / 1200)
  }
  const levels: number[] = []
  for (let i = 300; i < phases.length - 300; i++) {
    const [a, b] = [Math.sin(phases[i]), Math.sin(phases[i + 1])]
    levels.push((heard[i] * a + heard[i + 1] * b) / (a * a + b * b))
  }
  expect(levels[0] - levels[levels.length - 1]).toBeGreaterThan(0.3)
  const steepest = levels.reduce((most, level, i) => (i === 0 ? 0 : Math.max(most, Math.abs(level - levels[i - 1]))), 0)
  expect(20 * Math.log10(steepest)).toBeLessThan(-80)
})

test('at its own rate a clip is itself, to the bit, whether it goes round or a wheel moves its level', () => {
  const random = seeded(9)
  const samples = Float32Array.from({ length: 3000 }, () => random() - 0.5)
  const as = (own: OwnSettings) => played({ clipHz: 48000, engineHz: 48000, own: { ...own, values: { gainDb: 0 } }, samples }, 4000).heard
  const plain = as({})
  expect(plain.subarray(0, 3000).every((sample, i) => sample === 2 * samples[i])).toBe(true)
  const round = as({ mode: 'loopUntilLetGo' })
  expect(round.every((sample, i) => sample === 2 * samples[i % 3000])).toBe(true)
  const led = as({ responses: [responseTo('wheel', 'gainDb', -6)] })
  expect(led.subarray(0, 3000).every((sample, i) => sample === 2 * samples[i])).toBe(true)
})

test('what goes round has no seam at any rate', () => {
  const rate = 48000
  for (const [frames, turns] of [
    [1001, 30],
    [4799, 201],
    [130, 7],
  ] as const)
    // prettier-ignore
    for (const pitch of [0.71, 1.3, 2.6, 7.9]) {
      const hz = (turns * rate) / frames
      const own: OwnSettings = { mode: 'loopUntilStruckAgain', values: { tuneCents: 1200 * Math.log2(pitch) } }
      const { heard } = played({ clipHz: rate, engineHz: rate, own, samples: sine(hz, rate, frames) }, FROM + SPAN)
      const { unwantedDb, levelDb } = spectrumOf(heard, hz * pitch, rate)
      expect(unwantedDb).toBeLessThan(-98)
      if (hz * pitch < 16000) expect(Math.abs(levelDb)).toBeLessThan(0.15)
    }
})

test('where a pitch fall has come to is the sum of its formula, within a tenth of a frame, for 0.1 ms to 60 s', () => {
  const random = seeded(5151)
  for (const seconds of [0.0001, 0.0004, 0.003, 0.02, 0.15, 1, 9, 60])
    for (let i = 0; i < 4; i++) {
      const engineHz = i % 2 === 0 ? 44100 : 48000
      const clipHz = [44100, 48000, 96000][i % 3]
      const [from, to] = [4800 * (2 * random() - 1), 4800 * (2 * random() - 1)]
      const [wait, bend] = [i < 2 ? 0 : 0.01 * random(), [0, 1, -1][i] ?? 2 * random() - 1]
      const first = { seconds: 0, value: from, bend: 0 }
      const points = [first, ...(wait > 0 ? [{ ...first, seconds: wait }] : []), { seconds: wait + seconds, value: to, bend }]
      const shares = (u: number) => (u <= 0 ? 0 : u >= 1 ? 1 : u / (u + 64 ** bend * (1 - u)))
      const rateAt = (frame: number) => {
        const cents = from + (to - from) * shares((frame / engineHz - wait) / seconds)
        return Math.min(64, Math.max(1 / 64, (2 ** (cents / 1200) * clipHz) / engineHz))
      }
      const frames = Math.min(Math.ceil((wait + seconds) * engineHz) + 60, 120_000)
      let wanted = Math.round(0.2 * clipHz)
      for (let frame = 0; frame < frames; frame++) wanted += rateAt(frame)
      const own: OwnSettings = { values: { startSeconds: 0.2 }, envelopes: { pitch: { points } } }
      const samples = Float32Array.from({ length: Math.ceil(wanted) + 9000 }, (_, at) => at / 2 ** 24)
      const { engine, heard } = played({ clipHz, engineHz, own, samples }, frames)
      expect(Math.abs(engine.voices.position[0] - wanted)).toBeLessThan(0.1)
      if (samples.length > 200_000) continue // more than what a ramp of 32-bit numbers tells apart
      let position = Math.round(0.2 * clipHz)
      let worst = 0
      for (let frame = 0; frame < frames; frame++) {
        worst = Math.max(worst, Math.abs(heard[frame] * 2 ** 24 - position))
        position += rateAt(frame)
      }
      expect(worst).toBeLessThan(0.5)
    }
})

test('the same strike gives the same bits wherever it falls', () => {
  const random = seeded(31)
  const samples = Float32Array.from({ length: 9000 }, () => random() - 0.5)
  const own: OwnSettings = {
    values: { filter1CutoffHz: 900, filter1EnvelopeCents: 2400 },
    choices: { filter1Kind: 'lowPass' },
    envelopes: {
      pitch: { points: [{ seconds: 0, value: 1900, bend: 0 }, { seconds: 0.031, value: -300, bend: -0.6 }] },
      level: { points: [{ seconds: 0, value: 0, bend: 0 }, { seconds: 0.002, value: 1, bend: 0 }, { seconds: 0.12, value: 0, bend: 0.4 }] },
    },
  } // prettier-ignore
  const told = { clipHz: 44100, engineHz: 48000, own, samples }
  const first = played(told, 7000).heard
  for (const at of [1, 7, 16, 1003]) expect(played(told, 7000 + at, at).heard.subarray(at)).toEqual(first)
})
