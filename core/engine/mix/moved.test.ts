import { aKit, seeded } from '../../kit/builders'
import { effectKinds, effects } from '../../kit/effects'
import type { Effect } from '../../kit/effects'
import type { BusId, GrooveId, InsertId } from '../../kit/ids'
import type { Bus, Insert, Kit } from '../../kit/kit'
import { createBus } from '../../kit/make'
import { mixPlace, movedNumbers } from '../../kit/mix-places'
import { responseTo } from '../../kit/responses'
import type { Address } from '../../kit/shape'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import { EventType } from '../program/codes'
import { effectNumbers } from '../program/effects/numbers'

const RATE = 48000
/** Noise, with a beat in it that what goes by level hears. */
const noise = (frames: number, seed: number) => {
  const next = seeded(seed)
  return Float32Array.from({ length: frames }, (_, i) => (next() - 0.5) * (i % 4800 < 2400 ? 0.6 : 0.06))
}
const impulse = { sampleRateHz: RATE, channels: [noise(2000, 9)] }
const rig = aKit([{ bands: [[{ sampleRateHz: RATE, channels: [noise(40_000, 1), noise(40_000, 2)] }]] }])
rig.audio.set('room-impulse' as never, impulse)
const strike: ScoreEvent = { frame: 0, type: EventType.strike, padSlot: 0, velocity: 127 }
const insert = (kind: Effect, values: Insert['values'] = {}, choices: Insert['choices'] = {}): Insert => ({ id: 'fx' as InsertId, kind, values, choices, bypass: false, ...(kind === 'room' ? { audio: 'room-impulse' as never } : {}) }) // prettier-ignore

function through(bus: Partial<Bus>, more: Partial<Kit> = {}, events: ScoreEvent[] = [strike], frames = 24_000, block?: number): [Float32Array, Float32Array] {
  const pads = rig.kit.pads.map((pad) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, bus: 'b' as BusId })) }))
  const kit: Kit = { ...rig.kit, pads, buses: [{ ...createBus('b' as BusId, 'Lee'), ...bus }], ...more }
  const { engine } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  return renderOffline(engine, toScore(events), frames, block)
} // prettier-ignore

/** How far two signals are apart, dB against the second. */
function residueDb(a: Float32Array, b: Float32Array): number {
  let apart = 0
  let all = 0
  for (let i = 0; i < b.length; i++) {
    apart += (a[i]! - b[i]!) ** 2
    all += b[i]! ** 2
  }
  return 10 * Math.log10(apart / all)
}

const tiller = (address: Address, from: number, to: number, value: number): Kit['tillers'] => [{ id: 't', name: 'Lead', value, to: [{ id: 'x', address, from, to }] }] // prettier-ignore

/** Values within a part of the range that is heard, and whole. */
function someValues(kind: Effect, name: string, next: () => number): [number, number] {
  const { min, max } = (effects[kind] as Record<string, { min: number; max: number }>)[name]!
  const low = Math.max(min, name.endsWith('Hz') ? 80 : min)
  const high = Math.min(max, name.endsWith('Hz') ? 9000 : name.endsWith('Seconds') ? 2 : max)
  const at = (share: number) => (name.endsWith('Hz') ? low * (high / low) ** share : low + (high - low) * share)
  return [at(0.1 + 0.8 * next()), at(0.1 + 0.8 * next())]
}

test.each(effectKinds)('every number of %s that a tiller leads sounds as if it were set there', (kind) => {
  const next = seeded(kind.length * 31)
  const kinds: readonly Insert['choices'][] = kind === 'equaliser' ? [{ band1Kind: 'lowPass' }, { band1Kind: 'peak' }] : kind === 'compressor' || kind === 'limiter' ? [{ ranges: '3' }] : [{}] // prettier-ignore
  const base: Insert['values'] = kind === 'equaliser' ? { band1Db: 9 } : kind === 'drive' ? { driveDb: 12 } : kind === 'width' ? { monoBelowHz: 200 } : {} // prettier-ignore
  for (const name of movedNumbers(kind).filter((one) => kind !== 'equaliser' || one.startsWith('band1')))
    for (const choices of kinds) {
      const [now, there] = someValues(kind, name, next)
      const led = through(
        { inserts: [insert(kind, { ...base, [name]: now }, choices)] },
        { tillers: tiller({ scope: 'insert', id: 'fx', param: name }, now, there, 1) },
      )
      const set = through({ inserts: [insert(kind, { ...base, [name]: there }, choices)] })
      // Fewer bits are steps: where one lies between two its neighbour is another one.
      const most = name === 'bits' ? -40 : -60
      for (const side of [0, 1]) expect([name, side, residueDb(led[side]!, set[side]!) < most]).toEqual([name, side, true])
    }
})

test('at the beginning of a tiller nothing is changed, to the bit', () => {
  const plain = through({ inserts: [insert('echo'), { ...insert('equaliser', { band1Db: 6 }), id: 'eq' as InsertId }] })
  const led = through(
    { inserts: [insert('echo'), { ...insert('equaliser', { band1Db: 6 }), id: 'eq' as InsertId }] },
    { tillers: tiller({ scope: 'insert', id: 'eq', param: 'band1Hz' }, 60, 4000, 0) },
  )
  expect(led).toEqual(plain)
})

test('places, widths and low cuts of buses are played, and led as they are set', () => {
  const values = { pan: 0.5, width: 0.2, lowCutHz: 700 }
  const dry = through({})
  for (const [name, there] of Object.entries(values)) {
    const set = through({ values: { [name]: there } })
    expect(residueDb(set[0], dry[0])).toBeGreaterThan(-40)
    const usual = mixPlace({ ...rig.kit, buses: [createBus('b' as BusId, '')] }, { scope: 'bus', id: 'b', param: name })!.now
    const led = through({}, { tillers: tiller({ scope: 'bus', id: 'b', param: name }, usual, there, 1) })
    for (const side of [0, 1]) expect([name, residueDb(led[side]!, set[side]!) < -60]).toEqual([name, true])
  }
  const low = through({ values: { lowCutHz: 700 } })
  const through12Db = through({ inserts: [insert('equaliser', { band1Hz: 700, band1Damping: Math.SQRT2 }, { band1Kind: 'highPass' })] })
  expect(low).toEqual(through12Db)
})

const sway = { id: 'sway', name: 'Sway', wave: 'triangle' as const, rate: { unit: 'Hz' as const, value: 5 }, runs: 'always' as const, phase: 0.3 } // prettier-ignore
const address = (param: string): Address => ({ scope: 'insert', id: 'fx', param })
const groove = {
  id: 'g' as GrooveId,
  name: 'Tide',
  lengthSteps: 4,
  stepsPerBeat: 4,
  swing: 0.5,
  strings: [],
  lanes: [{ id: 'l', address: { scope: 'bus', id: 'b', param: 'pan' }, points: [{ step: 0, value: -1, bend: 0 }, { step: 3, value: 1, bend: 0.4 }] }, { id: 'm', address: address('band1Hz'), points: [{ step: 0, value: 200, bend: 0 }, { step: 2, value: 6000, bend: 0 }] }],
} as unknown as Kit['grooves'][number] // prettier-ignore
const moved: Partial<Kit> = {
  oscillators: [sway],
  responses: [{ ...responseTo('wheel', 'gainDb', 2400), to: [address('band1Hz')] }, { ...responseTo('oscillator', 'gainDb', 900), id: 'o', from: { kind: 'oscillator', id: 'sway' }, to: [address('band1Hz'), { scope: 'bus', id: 'b', param: 'pan' }], max: 0.4 }],
  grooves: [groove],
} // prettier-ignore
const moves: ScoreEvent[] = [strike, { frame: 900, type: EventType.controller, padSlot: 0, note: 1, velocity: 127 }, { frame: 7000, type: EventType.controller, padSlot: 0, note: 1, velocity: 30 }, { frame: 2000, type: EventType.groove, padSlot: 0, velocity: 1 }] // prettier-ignore
const lowPass = { inserts: [insert('equaliser', { band1Hz: 1000 }, { band1Kind: 'lowPass' })] }

test('wheels, oscillators and lanes lead numbers of effects and places, alike in blocks of any size', () => {
  const whole = through(lowPass, moved, moves, 20_000)
  for (const block of [1, 37, 128, 4096]) expect(through(lowPass, moved, moves, 20_000, block)).toEqual(whole)
  expect(residueDb(whole[0], through(lowPass, {}, moves, 20_000)[0])).toBeGreaterThan(-20)
  // The lane goes from left to right: one side is louder at its beginning, the other at its end.
  const laned = through({}, { tempoBpm: 120, grooves: [{ ...groove, lanes: groove.lanes!.slice(0, 1) }] }, [strike, { frame: 0, type: EventType.groove, padSlot: 0, velocity: 1 }], 24_000) // prettier-ignore
  const power = (side: Float32Array, from: number) => side.slice(from, from + 2000).reduce((sum, one) => sum + one * one, 0)
  expect(power(laned[0], 500)).toBeGreaterThan(20 * power(laned[1], 500))
  expect(power(laned[1], 21_000)).toBeGreaterThan(20 * power(laned[0], 21_000))
})

test('what is moved moves smoothly: a wheel thrown about leaves no click', () => {
  const sine = {
    sampleRateHz: RATE,
    channels: [Float32Array.from({ length: 40_000 }, (_, i) => 0.05 * Math.sin((2 * Math.PI * 100 * i) / RATE))],
  }
  const clear = aKit([{ bands: [[sine]] }])
  const pads = clear.kit.pads.map((pad) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, bus: 'b' as BusId })) }))
  const responses = [{ ...responseTo('wheel', 'gainDb', 24), to: [address('band1Db')] }]
  const kit: Kit = { ...clear.kit, pads, responses, buses: [{ ...createBus('b' as BusId, ''), inserts: [insert('equaliser', { band1Hz: 100, band1Db: -12 })] }] } // prettier-ignore
  const { engine } = createOffline(kit, RATE, (hash) => clear.audio.get(hash))
  const thrown = Array.from({ length: 20 }, (_, i) => ({ frame: 1000 * (i + 1), type: EventType.controller, padSlot: 0, note: 1, velocity: i % 2 === 0 ? 127 : 1 })) // prettier-ignore
  const [left] = renderOffline(engine, toScore([strike, ...thrown]), 24_000)
  // A sine of 100 Hz at 0.2 goes 0.0026 in a frame at most; from 0.0125 to 0.2 at once it would go fifty times that.
  let most = 0
  for (let i = 1; i < left.length; i++) most = Math.max(most, Math.abs(left[i]! - left[i - 1]!))
  expect(most).toBeLessThan(5e-3)
})

test('no number that is moved lies among those that memory is laid out for', () => {
  const context = { sampleRateHz: RATE, tempoBpm: 120, isMaster: true }
  for (const kind of effectKinds.filter((one) => one !== 'room'))
    for (const name of movedNumbers(kind)) {
      const { min, max } = (effects[kind] as Record<string, { min: number; max: number }>)[name]!
      const [low, high] = [min, max].map((value) => effectNumbers({ kind: kind as Exclude<Effect, 'room'>, values: { [name]: value }, choices: {} }, context)) // prettier-ignore
      expect([kind, name, high!.shape, high!.floats]).toEqual([kind, name, low!.shape, low!.floats])
      expect(high!.values.slice(0, high!.jumps)).toEqual(low!.values.slice(0, low!.jumps))
    }
})
