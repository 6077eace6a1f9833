import { createOffline, EventType, renderOffline, toScore } from '../engine'
import { applyBatch, createBand, createBus, createKit, createPad, createTurn, kitKind, responseTo, wholeClip } from '../kit'
import type { AudioHash, BusId, Kit, Pad, PadId, TieId } from '../kit'
import { hashOf, seeded, testIds } from '../kit/testing'
import { bringPad } from '.'

const RATE = 48000
const makeId = testIds(5)
const noise = seeded(8)
const sound = { sampleRateHz: RATE, channels: [Float32Array.from({ length: 6000 }, (_, i) => (2 * noise() - 1) * (1 - i / 6000))] }
const [near, far] = [hashOf('aa'), hashOf('bb')]
const clip = (audio: AudioHash) => wholeClip(audio, { frames: 6000, channels: 1 })

/** A pad that leans on another, goes to a bus, is swayed and led by a tiller, is in a choke group and silences itself. */
function source(): { kit: Kit; padId: PadId } {
  const leader = createPad(makeId, { name: 'Hull', family: 'tom', values: { gainDb: -4, tuneCents: -300 }, responses: [responseTo('velocity', 'gainDb', -9)] }, 36) // prettier-ignore
  const bus = { ...createBus('bus-deck' as BusId, 'Deck'), values: { gainDb: -2, pan: 0.4 } }
  const blank = createPad(makeId, { name: 'Hatch', values: { pan: -0.2 } }, 37)
  const sway = { ...responseTo('oscillator', 'tuneCents', 80), from: { kind: 'oscillator' as const, id: 'osc-swell' } }
  const led = { ...responseTo('tiller', 'gainDb', -6), from: { kind: 'tiller' as const, id: 'tiller-wet' } }
  const pad: Pad = {
    ...blank,
    own: { ...blank.own, bus: bus.id, responses: [sway as never, led as never] },
    leansOn: leader.id,
    rays: [{ ...blank.rays[0]!, values: { gainDb: -1 } }],
    bands: [1, 70].map((from, i) => createBand(makeId, from, [near, far].map((audio) => createTurn(makeId, { [blank.rays[0]!.id]: { ...clip(audio), gainDb: -i } })))), // prettier-ignore
  }
  const info = { name: 'x.wav', sampleRateHz: RATE, frames: 6000, channels: 1 }
  const kit: Kit = {
    ...createKit(makeId, 'Slipway'),
    values: {},
    pads: [leader, pad],
    buses: [bus],
    audio: { [near]: info, [far]: { ...info, name: 'y.wav' } },
    oscillators: [{ id: 'osc-swell', name: 'Swell', wave: 'sine', rate: { unit: 'Hz', value: 7 }, runs: 'strike', phase: 0.2 }],
    tillers: [{ id: 'tiller-wet', name: 'Wet', value: 0, to: [{ id: 't1', address: { scope: 'pad', id: pad.id, param: 'driveDb' }, from: 0, to: 12 }] }], // prettier-ignore
    ties: [
      { id: 'tie-g' as TieId, kind: 'chokeGroup', name: 'Hatches', pads: [leader.id, pad.id], fadeSeconds: 0.02 },
      { id: 'tie-c' as TieId, kind: 'choke', from: pad.id, to: [pad.id], fadeSeconds: 0.5 },
    ],
  }
  return { kit, padId: pad.id }
}

function struck(kit: Kit, padId: PadId): [Float32Array, Float32Array] {
  const { engine, loader } = createOffline(kit, RATE, () => sound)
  const strike = (frame: number, velocity: number) => ({ frame, type: EventType.strike, padSlot: loader.slotOf(padId), velocity })
  return renderOffline(engine, toScore([strike(0, 100), strike(2000, 40), strike(9000, 127)]), 20000)
}

function brought(to: Kit) {
  const { kit, padId } = source()
  const made = bringPad(makeId, to, kit, padId)!
  const { doc, refused } = applyBatch(kitKind, to, made.edits)
  expect(refused).toEqual([])
  expect(kitKind.fault(doc)).toBeUndefined()
  return { was: struck(kit, padId), now: struck(doc, made.padId), doc, made, pad: doc.pads.find(({ id }) => id === made.padId)! }
}

test('a pad of another kit sounds in this one bit for bit as it did there, and says what came along', () => {
  const { was, now, made, pad, doc } = brought({ ...createKit(makeId, 'Low Tide'), values: {} })
  expect(was[0].some((sample) => Math.abs(sample) > 0.05)).toBe(true)
  expect(now).toEqual(was)
  expect(made.along).toEqual(['the bus Deck', 'the tiller Wet'])
  expect(pad.leansOn).toBeUndefined()
  expect(doc.ties).toMatchObject([
    { kind: 'chokeGroup', name: 'Hatches', pads: [pad.id] },
    { kind: 'choke', from: pad.id, to: [pad.id] },
  ])
  expect(doc.tillers[0]!.to[0]!.address.id).toBe(pad.id)
})

test('what a kit has by the same name is taken and stays as it is', () => {
  const bus = { ...createBus('bus-own' as BusId, 'Deck'), values: { gainDb: -20 } }
  const other = createPad(makeId, { name: 'Oar' }, 36)
  const to: Kit = {
    ...createKit(makeId, 'Low Tide'),
    pads: [other],
    buses: [bus],
    tillers: [{ id: 'tiller-own', name: 'Wet', value: 0.5, to: [] }],
    ties: [{ id: 'tie-own' as TieId, kind: 'chokeGroup', name: 'Hatches', pads: [other.id], fadeSeconds: 0.1 }],
  }
  const { doc, made, pad } = brought(to)
  expect(made.along).toEqual([])
  expect(doc.buses).toEqual([bus])
  expect(pad.own.bus).toBe(bus.id)
  expect(pad.notes).toEqual([37])
  expect(doc.ties[0]).toEqual({ ...to.ties[0], pads: [other.id, pad.id] })
  expect(doc.tillers).toHaveLength(1)
  expect(pad.own.responses!.find(({ from }) => from.kind === 'tiller')!.from).toEqual({ kind: 'tiller', id: 'tiller-own' })
  expect(doc.pads[0]).toBe(other)
  const twice = bringPad(makeId, doc, source().kit, source().padId)
  expect(twice).toBeUndefined() // that pad is of yet another kit
})

test('a full kit takes no more', () => {
  const { kit, padId } = source()
  const full = { ...createKit(makeId, 'Full'), pads: Array.from({ length: 128 }, () => createPad(makeId, {})) }
  expect(bringPad(makeId, full, kit, padId)).toBeUndefined()
})
