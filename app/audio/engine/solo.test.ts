import { createOffline, EventType, renderOffline, toScore } from '@heliaster/core/engine'
import { createBand, createBus, createTurn } from '@heliaster/core/kit'
import type { Band, Bus, BusId, Kit, Pad, Ray } from '@heliaster/core/kit'
import { aKit, seeded, testIds } from '@heliaster/core/kit/testing'

import { aKitOf, aPad } from '../../testing/a-kit'
import { ALL_SOUND, heardCell, isShutOut, soloed, toggleAlone, toggleSolo, withSolo } from './solo'

const makeId = testIds(8)
const bandOf = (from: number, turns: number): Band =>
  createBand(
    makeId,
    from,
    Array.from({ length: turns }, () => createTurn(makeId, {})),
  )
const layered = (): Pad => ({ ...aPad(0), bands: [bandOf(1, 3), bandOf(50, 2), bandOf(100, 4)] })
const kit: Kit = aKitOf(layered(), layered())
const [one, other] = kit.pads as [Pad, Pad]
const played = (at = 0) => withSolo(kit).pads[at]!

beforeEach(() => soloed.setState(ALL_SOUND))

test('a band kept alone answers every velocity, a turn every strike; other pads are as they were, and all come back at one press', () => {
  const [, middle] = one.bands
  toggleAlone(one, 'bands', middle!.id)
  expect(played().bands).toEqual([{ ...middle, fromVelocity: 1 }])
  expect(played(1)).toBe(other)
  toggleAlone(one, 'turns', one.bands[2]!.turns[3]!.id) // in the place of the band
  expect(played().bands.map(({ fromVelocity, turns }) => [fromVelocity, turns])).toEqual([[1, [one.bands[2]!.turns[3]]]])
  expect(soloed.getState().bands).toEqual([])
  toggleAlone(other, 'bands', other.bands[0]!.id) // of each pad its own
  expect([played().bands.length, played(1).bands.length]).toEqual([1, 1])
  toggleAlone(one, 'turns', one.bands[2]!.turns[3]!.id)
  expect([played().bands.length, played(1).bands.length]).toEqual([3, 1])
  soloed.setState(ALL_SOUND)
  expect(withSolo(kit)).toBe(kit)
})

test('whatever sounds alone, the cell that is lit is the one that sounded', () => {
  const random = seeded(5)
  for (let round = 0; round < 60; round++) {
    soloed.setState(ALL_SOUND)
    const band = one.bands[Math.floor(random() * 3)]!
    const turn = band.turns[Math.floor(random() * band.turns.length)]!
    if (random() < 0.7) toggleAlone(one, random() < 0.5 ? 'bands' : 'turns', random() < 0.5 ? band.id : turn.id)
    const now = played()
    const at = Math.floor(random() * now.bands.length)
    const cell = Math.floor(random() * now.bands[at]!.turns.length)
    const told = heardCell(one, { band: at, turn: cell }, soloed.getState())
    expect(one.bands[told.band]!.turns[told.turn]).toBe(now.bands[at]!.turns[cell])
  }
  expect(heardCell(one, { band: -1, turn: -1 }, soloed.getState())).toEqual({ band: -1, turn: -1 })
})

test('a ray with cells of its own keeps its own band alone; pads and rays are muted beside those that are soloed', () => {
  const own = [bandOf(1, 2), bandOf(64, 2)]
  const rayed: Pad = { ...one, rays: [one.rays[0]!, { ...one.rays[0]!, id: 'far' as never, source: { kind: 'clips', bands: own } }] }
  const of = { ...kit, pads: [rayed, other] }
  toggleAlone(rayed, 'bands', own[1]!.id)
  const [made] = withSolo(of).pads as [Pad]
  expect(made.bands).toEqual(rayed.bands)
  expect(made.rays[1]!.source).toEqual({ kind: 'clips', bands: [{ ...own[1], fromVelocity: 1 }] })
  toggleSolo('rays', 'far' as never)
  toggleSolo('pads', other.id)
  const [first, second] = withSolo(of).pads as [Pad, Pad]
  expect([first.own.mute, second.own.mute, first.rays.map(({ mute }) => mute)]).toEqual([true, undefined, [true, false]])
  expect(withSolo(of).pads[0]).toBe(first) // compiled once
})

const RATE = 48000
const bus = (id: string, more: Partial<Bus> = {}): Bus => ({ ...createBus(id as BusId, id), ...more })
const sendTo = (id: string) => ({ busId: id as BusId, values: { gainDb: -6 }, tap: 'post' as const })

/** Pads that each sound at a level of their own, on buses; what is heard of them with some buses alone, by the engine. */
function heardWith(ways: readonly Partial<Ray>[], buses: Bus[], alone: readonly string[]): number {
  const level = (i: number) => 0.25 / 4 ** i
  const rig = aKit(ways.map((_, i) => ({ bands: [[{ sampleRateHz: RATE, channels: [new Float32Array(400).fill(level(i))] }]] })))
  const pads = rig.kit.pads.map((pad, i) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, ...ways[i] })) }))
  const whole: Kit = { ...rig.kit, pads, buses }
  const given = withSolo(whole, { ...ALL_SOUND, buses: alone as BusId[] })
  for (const [i, pad] of pads.entries())
    expect(isShutOut(whole, pad.id, { ...ALL_SOUND, buses: alone as BusId[] })).toBe(alone.length > 0 && partOf(i) === 0)
  return renderPads(
    given,
    rig,
    pads.map((_, i) => i),
  )

  function partOf(pad: number): number {
    return renderPads(given, rig, [pad])
  }
}

function renderPads(kit: Kit, rig: ReturnType<typeof aKit>, pads: readonly number[]): number {
  const { engine } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  const events = pads.map((padSlot) => ({ frame: 0, type: EventType.strike, padSlot, velocity: 127 }))
  return Number(renderOffline(engine, toScore(events), 300)[0][200]!.toFixed(6))
}

test('a bus alone lets be heard what comes to it, by whatever way, and nothing beside', () => {
  const buses = [
    bus('drums', { sends: [sendTo('room')] }),
    bus('all', { sends: [] }),
    bus('room', { isReturn: true, out: 'all' as BusId }),
    bus('bells'),
  ]
  const ways: Partial<Ray>[] = [{ bus: 'drums' as BusId }, { bus: 'bells' as BusId, sends: [sendTo('room')] }, {}]
  const [low, mid, high] = [0.25, 0.0625, 0.015625]
  const half = 10 ** (-6 / 20)
  const near = (value: number, wanted: number) => expect(value).toBeCloseTo(wanted, 4)
  near(heardWith(ways, buses, []), low + low * half + mid + mid * half + high)
  near(heardWith(ways, buses, ['drums']), low + low * half) // with the room it sends to
  near(heardWith(ways, buses, ['bells']), mid) // its pad's own send goes past it
  near(heardWith(ways, buses, ['room']), low * half + mid * half)
  near(heardWith(ways, buses, ['all']), low * half + mid * half) // the room goes into it
  near(heardWith(ways, buses, ['drums', 'bells']), low + low * half + mid)
  near(heardWith(ways, buses, ['gone']), low + low * half + mid + mid * half + high)
})

test('while a bus is alone, a pad that nothing changed stays the very object that the engine has compiled', () => {
  const buses = [bus('drums'), bus('bells')]
  const whole: Kit = { ...kit, buses }
  const now = { ...ALL_SOUND, buses: ['drums' as BusId] }
  const first = withSolo(whole, now)
  expect(withSolo({ ...whole, tempoBpm: 99 }, now).pads[0]).toBe(first.pads[0])
  expect(withSolo(whole, { ...ALL_SOUND, buses: ['bells' as BusId] }).pads[0]).toEqual(first.pads[0]) // of neither
})
