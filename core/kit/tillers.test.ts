import fc from 'fast-check'

import {
  addressLeadsTo,
  createBus,
  effectKinds,
  mixPlace,
  movedNumbers,
  createKit,
  kitSchema,
  leadsTo,
  MOST_TILLERS,
  parameterRow,
  movedParameters,
  startSchema,
  startTillersOf,
  valueNow,
  withNewTiller,
  withStartTillers,
  withTarget,
  withTiller,
} from '.'
import type { Address, Kit, PadId, Tiller } from '.'
import { testIds } from './testing'
import { aKit } from './builders'
import { createOffline, renderOffline, toScore } from '../engine/offline'
import { controlNumbers, EventType } from '../engine/program/codes'

const makeId = testIds(21)

test('a kit takes sixteen, each with a name of its own', () => {
  let kit: Kit = createKit(makeId, 'Tillers')
  for (let i = 0; i < 20; i++) kit = { ...kit, tillers: withNewTiller(makeId, kit) }
  expect(kit.tillers).toHaveLength(MOST_TILLERS)
  expect(new Set(kit.tillers.map(({ name }) => name)).size).toBe(MOST_TILLERS)
  const renamed = withTiller(kit, kit.tillers[3]!.id, { name: 'Tide' })
  expect(renamed.map(({ name }) => name).filter((name) => name === 'Tide')).toHaveLength(1)
  const again = withNewTiller(makeId, { ...kit, tillers: kit.tillers.slice(1) }) // the first is gone, its name is free
  expect(new Set(again.map(({ name }) => name)).size).toBe(MOST_TILLERS)
})

test('a target is led somewhere else within its bounds, from wherever it is, once', () => {
  const value = fc.double({ min: 0, max: 1, noNaN: true })
  fc.assert(
    fc.property(fc.constantFrom(...movedParameters), value, (param, share) => {
      const { min, max } = parameterRow(param)
      const now = min + share * (max - min)
      const to = leadsTo(param, now)
      expect(to).not.toBe(now)
      expect(to).toBeGreaterThanOrEqual(min)
      expect(to).toBeLessThanOrEqual(max)
      const kit = createKit(makeId, 'T')
      const [tiller] = withNewTiller(makeId, kit)
      const led = withTarget(tiller!, makeId, { scope: 'pad', id: 'pad-1', param }, now, to)
      expect(withTarget(led, makeId, { scope: 'pad', id: 'pad-1', param }, now, to)).toBe(led)
      expect(kitSchema.safeParse({ ...kit, tillers: [led] }).success).toBe(true)
    }),
  )
})

test('so is every number of an effect, and everything of a bus that can be led', () => {
  const kinds = fc.constantFrom(...effectKinds.flatMap((kind) => movedNumbers(kind).map((name) => [kind, name] as const)))
  fc.assert(
    fc.property(kinds, fc.double({ min: 0, max: 1, noNaN: true }), ([kind, name], share) => {
      const insert = { id: 'fx' as never, kind, values: {}, choices: {}, bypass: false }
      const kit: Kit = { ...createKit(makeId, 'T'), buses: [{ ...createBus('b' as never, 'B'), inserts: [insert] }] }
      const address: Address = { scope: 'insert', id: 'fx', param: name }
      const { min, max } = mixPlace(kit, address)!
      const now = min + share * (max - min)
      const to = addressLeadsTo(kit, address, now)
      expect(to).not.toBe(now)
      expect(to >= min && to <= max).toBe(true)
      for (const param of ['gainDb', 'pan', 'width', 'lowCutHz']) {
        const ofBus: Address = { scope: 'bus', id: 'b', param }
        const is = valueNow(kit, ofBus)!
        expect(addressLeadsTo(kit, ofBus, is)).not.toBe(is)
      }
    }),
  )
})

test('the engine plays what was set at its beginning, and where it leads to at its end', () => {
  const rig = aKit([{ bands: [[{ sampleRateHz: 48000, channels: [new Float32Array(2000).fill(0.25)] }]] }])
  const padId = rig.kit.pads[0]!.id
  const [tiller] = withNewTiller(makeId, rig.kit)
  const led = withTarget(tiller!, makeId, { scope: 'pad', id: padId, param: 'gainDb' }, 0, leadsTo('gainDb', 0))
  const peak = (value: number, tillers = [led]) => {
    const { engine, loader } = createOffline({ ...rig.kit, tillers }, 48000, (hash) => rig.audio.get(hash))
    const padSlot = loader.slotOf(padId)
    const move = { frame: 0, type: EventType.controller, padSlot: 0, note: controlNumbers.tiller, velocity: value }
    const [left] = renderOffline(engine, toScore([move, { frame: 960, type: EventType.strike, padSlot, velocity: 127 }]), 2000)
    return Math.max(...left)
  }
  expect(peak(0)).toBeCloseTo(peak(0, []), 6)
  expect(20 * Math.log10(peak(1) / peak(0))).toBeCloseTo(-24, 2)
})

test('what tillers move of a pad goes into a start and onto new pads: to tillers of the same name, else to new ones, within bounds', () => {
  const kit = { ...createKit(makeId, 'T'), tillers: [] }
  const first = withNewTiller(makeId, kit)
  const [tiller] = first
  const two = ['gainDb', 'pan'].reduce((one, param) => withTarget(one, makeId, { scope: 'pad', id: 'pad-1', param }, 0, 1), {
    ...tiller!,
    name: 'Weather',
  })
  const other = withTarget(two, makeId, { scope: 'pad', id: 'pad-2', param: 'gainDb' }, 0, 3)
  const brought = startTillersOf({ ...kit, tillers: [other] }, 'pad-1' as PadId)
  expect(brought).toEqual([
    {
      name: 'Weather',
      to: [
        { param: 'gainDb', from: 0, to: 1 },
        { param: 'pan', from: 0, to: 1 },
      ],
    },
  ])
  expect(startSchema.shape.tillers.safeParse(brought).success).toBe(true)
  const fresh = ['pad-8', 'pad-9'] as PadId[]
  const [alone] = withStartTillers(makeId, kit, brought, fresh)
  expect(alone!.to.map(({ address }) => [address.id, address.param])).toEqual([
    ['pad-8', 'gainDb'],
    ['pad-8', 'pan'],
    ['pad-9', 'gainDb'],
    ['pad-9', 'pan'],
  ])
  const joined = withStartTillers(makeId, { ...kit, tillers: [other] }, brought, fresh)
  expect([joined.length, joined[0]!.to.length]).toEqual([1, 7])
  let full: Tiller[] = []
  while (full.length < MOST_TILLERS) full = withNewTiller(makeId, { ...kit, tillers: full })
  expect(withStartTillers(makeId, { ...kit, tillers: full }, brought, fresh)).toEqual(full)
  const many = withStartTillers(
    makeId,
    kit,
    brought,
    Array.from({ length: 60 }, (_, i) => `pad-${i}` as PadId),
  )
  expect(kitSchema.safeParse({ ...kit, tillers: many }).success).toBe(true)
})

test('what a tiller begins from is where a ray, a bus or the mix stands, so that nothing changes until it is moved', () => {
  const rig = aKit([{ bands: [[{ sampleRateHz: 48000, channels: [new Float32Array(2000).fill(0.25)] }]] }])
  const [pad] = rig.kit.pads
  const bus = { ...createBus(makeId('bus'), 'Shed'), values: { gainDb: -4 } }
  const kit: Kit = {
    ...rig.kit,
    values: { ...rig.kit.values, gainDb: -2 },
    buses: [bus],
    pads: [{ ...pad!, own: { ...pad!.own, bus: bus.id }, rays: pad!.rays.map((ray) => ({ ...ray, values: { gainDb: -3 } })) }],
  }
  const addresses = [{ scope: 'ray', id: pad!.rays[0]!.id }, { scope: 'bus', id: bus.id }, { scope: 'kit' }].map(
    (one) => ({ ...one, param: 'gainDb' }) as Address,
  )
  expect(addresses.map((address) => valueNow(kit, address))).toEqual([-3, -4, -2])
  expect([
    valueNow(kit, { scope: 'bus', id: bus.id, param: 'rollSeconds' }),
    valueNow(kit, { scope: 'pad', id: 'gone', param: 'gainDb' }),
  ]).toEqual([undefined, undefined])
  const [empty] = withNewTiller(makeId, kit)
  const peak = (tillers: Tiller[], value: number) => {
    const { engine, loader } = createOffline({ ...kit, tillers }, 48000, (hash) => rig.audio.get(hash))
    const move = { frame: 0, type: EventType.controller, padSlot: 0, note: controlNumbers.tiller, velocity: value }
    const strike = { frame: 4800, type: EventType.strike, padSlot: loader.slotOf(pad!.id), velocity: 127 }
    const [left] = renderOffline(engine, toScore([move, strike]), 6000)
    return Math.max(...left.subarray(4800))
  }
  const plain = peak([], 0)
  for (const address of addresses) {
    const now = valueNow(kit, address)!
    const led = withTarget(empty!, makeId, address, now, now - 12)
    expect([address.scope, 20 * Math.log10(peak([led], 0) / plain)]).toEqual([address.scope, expect.closeTo(0, 2)])
    expect([address.scope, 20 * Math.log10(peak([led], 1) / plain)]).toEqual([address.scope, expect.closeTo(-12, 1)])
  }
})
