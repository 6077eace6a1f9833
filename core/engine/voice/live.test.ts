import { aKit, seeded } from '../../kit/builders'
import type { Kit, OwnSettings } from '../../kit/kit'
import { responseTo } from '../../kit/responses'
import type { Oscillator, Response } from '../../kit/shape'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import { controlNumbers, EventType } from '../program/codes'

const RATE = 48000
const FRAMES = 24000
const WHEEL = 1

interface Move {
  readonly frame: number
  readonly control: number
  readonly value: number
}

const sine = (hz: number) => (at: number) => 0.3 * Math.sin((2 * Math.PI * hz * at) / RATE)

function played(own: OwnSettings, moves: readonly Move[], clip: (at: number) => number, more: Partial<Kit> = {}, block = 4096) {
  const samples = Float32Array.from({ length: 120000 }, (_, i) => clip(i))
  const { kit, audio } = aKit([{ own: { ...own, values: { gainDb: -3, ...own.values } }, bands: [[{ sampleRateHz: RATE, channels: [samples] }]] }]) // prettier-ignore
  const { engine } = createOffline({ ...kit, ...more }, RATE, (hash) => audio.get(hash))
  const events: ScoreEvent[] = [
    ...moves.map(({ frame, control, value }) => ({ frame, type: EventType.controller, padSlot: 0, note: control, velocity: value })),
    { frame: 5, type: EventType.strike, padSlot: 0, velocity: 127 },
  ]
  return renderOffline(engine, toScore(events), FRAMES, block)
}

/** How far the rendered lies from the model, dB against the model. */
function residueDb(rendered: Float32Array, model: (i: number) => number): number {
  let [error, power] = [0, 0]
  for (let i = 5; i < rendered.length; i++) {
    const expected = model(i)
    error += (rendered[i] - expected) ** 2
    power += expected ** 2
  }
  return 10 * Math.log10(error / power + 1e-30)
}

/**
 * What a control adds, frame by frame, worked out by the sentence alone: on each 16th frame of the strike it sets out for a point that is
 * one share (16 frames of 5 ms) nearer to its target, and goes there straight. A strike begins where the control stands.
 */
function added(moves: readonly Move[], control: number, part: (value: number) => number, from = 5): Float64Array {
  const out = new Float64Array(FRAMES)
  const standing = (frame: number) => part(moves.filter((one) => one.control === control && one.frame <= frame).pop()?.value ?? 0)
  let [here, there] = [standing(from), standing(from)]
  for (let i = from; i < FRAMES; i++) {
    if ((i - from) % 16 === 0 && i > from) {
      here = there
      there = here + (standing(i) - here) * (16 / (0.005 * RATE))
    }
    out[i] = here + ((there - here) * ((i - from) % 16)) / 16
  }
  return out
}

const moves: Move[] = [
  { frame: 0, control: WHEEL, value: 20 },
  { frame: 3001, control: WHEEL, value: 127 },
  { frame: 9007, control: WHEEL, value: 0 },
  { frame: 9200, control: WHEEL, value: 64 },
  { frame: 15013, control: WHEEL, value: 90 },
]
const share = (value: number) => value / 127
const fromWheel = (param: Response['to'][number]['param'], amount: number): OwnSettings => ({
  responses: [responseTo('wheel', param, amount)],
})
const BASE = 10 ** (-3 / 20)

/** A state variable filter with coefficients of its own for every frame; low pass. */
function modelFilter(input: (i: number) => number, cutoffHz: (i: number) => number, damping: (i: number) => number): Float64Array {
  const out = new Float64Array(FRAMES)
  let [one, two] = [0, 0]
  for (let i = 5; i < FRAMES; i++) {
    const g = Math.tan((Math.PI * Math.min(cutoffHz(i), RATE * 0.49)) / RATE)
    const k = damping(i)
    const band = (one + g * (input(i) - two)) / (1 + g * (g + k))
    const low = two + g * band
    one = 2 * band - one
    two = 2 * low - two
    out[i] = low
  }
  return out
}

/** Positions of a clip that is read at a rate that moves. */
function positions(cents: (i: number) => number): Float64Array {
  const out = new Float64Array(FRAMES)
  for (let i = 6; i < FRAMES; i++) out[i] = out[i - 1] + 2 ** (cents(i - 1) / 1200)
  return out
}

test('level and place that a wheel moves have no steps: within -90 dB of a model that works them out for every sample', () => {
  const clip = sine(997)
  const level = added(moves, WHEEL, (value) => -24 * share(value))
  const [left] = played(fromWheel('gainDb', -24), moves, clip)
  expect(residueDb(left, (i) => clip(i - 5) * BASE * 10 ** (level[i] / 20))).toBeLessThan(-90)
  const place = added(moves, WHEEL, (value) => 1.2 * share(value))
  const [panned, right] = played(fromWheel('pan', 1.2), moves, clip)
  const held = (i: number) => Math.min(1, Math.max(-1, place[i]))
  expect(residueDb(panned, (i) => clip(i - 5) * BASE * Math.sqrt(1 - held(i)))).toBeLessThan(-90)
  expect(residueDb(right, (i) => clip(i - 5) * BASE * Math.sqrt(1 + held(i)))).toBeLessThan(-90)
})

test('tuning that a bend moves has none either', () => {
  const clip = sine(110)
  const bends = [{ frame: 2003, control: controlNumbers.bend, value: 1 }, { frame: 7011, control: controlNumbers.bend, value: -1 }, { frame: 12007, control: controlNumbers.bend, value: 0.3 }] // prettier-ignore
  const cents = added(bends, controlNumbers.bend, (value) => 1200 * value)
  const at = positions((i) => cents[i])
  const [left] = played({ responses: [responseTo('bend', 'tuneCents', 1200)] }, bends, clip)
  expect(residueDb(left, (i) => clip(at[i]) * BASE)).toBeLessThan(-90)
})

test('cutoff, damping and the reach of a filter envelope have none', () => {
  const clip = (at: number) => 0.2 * Math.sin(0.05 * at) + 0.1 * Math.sin(0.31 * at)
  const filter: OwnSettings = { choices: { filter1Kind: 'lowPass' }, values: { gainDb: -3, filter1CutoffHz: 500, filter1Damping: 0.6 } }
  const input = (i: number) => clip(i - 5)
  const cents = added(moves, WHEEL, (value) => 3600 * share(value))
  const moved = modelFilter(input, (i) => 500 * 2 ** (cents[i] / 1200), () => 0.6) // prettier-ignore
  const [left] = played({ ...filter, ...fromWheel('filter1CutoffHz', 3600) }, moves, clip)
  expect(residueDb(left, (i) => moved[i] * BASE)).toBeLessThan(-90)
  const damping = added(moves, WHEEL, (value) => share(value))
  const damped = modelFilter(input, () => 500, (i) => Math.min(2, 0.6 + damping[i])) // prettier-ignore
  const [softer] = played({ ...filter, ...fromWheel('filter1Damping', 1) }, moves, clip)
  expect(residueDb(softer, (i) => damped[i] * BASE)).toBeLessThan(-90)
  const envelope = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 4, value: 0, bend: 0 }] } // prettier-ignore
  const reach = added(moves, WHEEL, (value) => 4800 * share(value))
  const opened = modelFilter(input, (i) => 500 * 2 ** ((reach[i] * (1 - (i - 5) / (4 * RATE))) / 1200), () => 0.6) // prettier-ignore
  const [open] = played({ ...filter, envelopes: { filter1: envelope }, ...fromWheel('filter1EnvelopeCents', 4800) }, moves, clip)
  expect(residueDb(open, (i) => opened[i] * BASE)).toBeLessThan(-90)
})

const oscillator = (more: Partial<Oscillator>): Oscillator => ({ id: 'sway', name: 'Sway', wave: 'sine', rate: { unit: 'Hz', value: 5 }, runs: 'always', phase: 0, ...more }) // prettier-ignore
const fromSway = (param: Response['to'][number]['param'], amount: number): Response => ({ ...responseTo('oscillator', param, amount), from: { kind: 'oscillator', id: 'sway' } }) // prettier-ignore

test('an oscillator moves what it moves as its wave says, from the strike or by itself, in beats or in Hz', () => {
  const clip = sine(997)
  const swaying = (i: number, hz: number, from: number) => 12 * Math.sin((2 * Math.PI * hz * (i - from)) / RATE)
  const cases = [
    { given: oscillator({}), hz: 5, from: 0 },
    { given: oscillator({ runs: 'strike' }), hz: 5, from: 5 },
    { given: oscillator({ rate: { unit: 'beats', value: 0.25 } }), hz: 8, from: 0 },
    { given: oscillator({ rate: { unit: 'Hz', value: 90 } }), hz: 90, from: 0 },
  ]
  for (const { given, hz, from } of cases) {
    const [left] = played({ responses: [fromSway('gainDb', 12)] }, [], clip, { oscillators: [given], tempoBpm: 120 })
    expect(residueDb(left, (i) => clip(i - 5) * BASE * 10 ** (swaying(i, hz, from) / 20))).toBeLessThan(-90)
  }
  const falling = played({ responses: [fromSway('pan', 1)] }, [], () => 0.1, { oscillators: [oscillator({ wave: 'falling' })] })
  expect([Math.sign(falling[1][700] - falling[0][700]), Math.sign(falling[1][9000] - falling[0][9000])]).toEqual([1, -1])
  const steps = played({ responses: [fromSway('gainDb', 6)] }, [], () => 0.1, { oscillators: [oscillator({ wave: 'steps' })] })[0]
  expect(new Set([1000, 4000, 12000].map((i) => steps[i])).size).toBe(2) // waits on its value for a whole period
})

test('pressure on a key moves its own pad alone; a tiller leads from one value to another; a curve and bounds hold', () => {
  const tiller = { id: 't', name: 'Loud', value: 0.25, to: [{ id: 'x', address: { scope: 'pad' as const, id: 'pad-1', param: 'gainDb' }, from: -40, to: 0 }] } // prettier-ignore
  const { kit, audio } = aKit([1, 2].map(() => ({ own: { responses: [responseTo('keyPressure', 'gainDb', -20)] }, bands: [[{ sampleRateHz: RATE, channels: [new Float32Array(9000).fill(0.5)] }]] }))) // prettier-ignore
  const level = (given: Kit, events: ScoreEvent[], slot: number) => {
    const { engine } = createOffline(given, RATE, (hash) => audio.get(hash))
    const score = toScore([...events, { frame: 10, type: EventType.strike, padSlot: slot, velocity: 127 }])
    return renderOffline(engine, score, 4000)[0][3999]
  }
  const press: ScoreEvent = { frame: 0, type: EventType.controller, padSlot: 0, note: controlNumbers.keyPressure, velocity: 1 }
  expect(level(kit, [press], 0)).toBeCloseTo(0.05, 5)
  expect(level(kit, [press], 1)).toBeCloseTo(0.5, 5)
  const led = { ...kit, tillers: [{ ...tiller, to: [{ ...tiller.to[0], address: { ...tiller.to[0].address, id: kit.pads[0].id } }] }] }
  expect(level(led, [], 0)).toBeCloseTo(0.5 * 10 ** (-30 / 20), 5)
  const full: ScoreEvent = { frame: 0, type: EventType.controller, padSlot: 0, note: controlNumbers.tiller, velocity: 1 }
  expect(level(led, [full], 0)).toBeCloseTo(0.5, 5)
  const drawn: Response = { ...responseTo('wheel', 'gainDb', -40), curve: { points: [{ x: 0, y: 0, bend: 0 }, { x: 0.5, y: 1, bend: 0 }, { x: 1, y: 0.5, bend: 0 }] }, min: -15 } // prettier-ignore
  const curved = { ...kit, pads: kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, responses: [drawn] } })) }
  const wheel = (value: number): ScoreEvent => ({ frame: 0, type: EventType.controller, padSlot: 0, note: WHEEL, velocity: value })
  const dB = (value: number) => 20 * Math.log10(level(curved, [wheel(value)], 0) / 0.5)
  expect([0, 127 / 16, 127 / 2, 127].map((value) => Math.round(100 * dB(value)) / 100)).toEqual([0, -5, -15, -15])
})

test('whatever moves, the samples are the same in blocks of any size', () => {
  const random = seeded(5)
  const many = Array.from({ length: 60 }, () => ({ frame: Math.floor(random() * FRAMES), control: random() < 0.5 ? WHEEL : controlNumbers.bend, value: Math.floor(random() * 2) })) // prettier-ignore
  const own: OwnSettings = {
    choices: { filter1Kind: 'lowPass' },
    values: { filter1CutoffHz: 900, filter1Damping: 0.4, filter1EnvelopeCents: 1200 },
    envelopes: { pitch: { points: [{ seconds: 0, value: 700, bend: 0 }, { seconds: 0.2, value: 0, bend: -0.5 }] }, filter1: { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.3, value: 0, bend: 0.3 }] } },
    responses: [responseTo('wheel', 'gainDb', 9), responseTo('bend', 'tuneCents', 500), responseTo('wheel', 'filter1CutoffHz', 1900), fromSway('pan', 0.7), fromSway('tuneCents', 70)],
  } // prettier-ignore
  const [whole, ...others] = [4096, 128, 101, 1].map((block) => played(own, many, sine(440), { oscillators: [oscillator({})] }, block))
  expect(whole[0].some((sample) => Math.abs(sample) > 0.05)).toBe(true)
  for (const other of others) expect(other).toEqual(whole)
})
