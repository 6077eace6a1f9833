import { aKit, anImpulse } from '../../kit/builders'
import { applyEdit } from '../../kit/kit-edit'
import { createBus } from '../../kit/make'
import type { KitEdit } from '../../kit/kit-edit'
import { createLoader } from './loader'
import { createMemory } from './memory'
import { EventType, StatusField } from '../program/layout'
import { render } from '../render'
import { createSampleStore } from './sample-store'
import { createEngine } from '../state'

const RATE = 48000

function live(rig: ReturnType<typeof aKit>) {
  const memory = createMemory(false)
  const store = createSampleStore(
    { createChunk: (chunk, frames) => (memory.chunks[chunk] = new Float32Array(frames)), written: () => undefined },
    8,
  )
  const loader = createLoader(memory, store, RATE, (hash) => rig.audio.get(hash))
  const engine = createEngine(memory, RATE)
  const run = (frames: number) => {
    const left = new Float32Array(frames)
    render(engine, left, new Float32Array(frames), 0, frames)
    return left
  }
  const strike = (padSlot: number) => {
    engine.score = Float64Array.of(engine.frame, EventType.strike, padSlot, 127, -1, 0, 0, 0)
    engine.scoreCursor = 0
  }
  return { memory, store, loader, run, strike }
}

const steady = (level: number) => ({ sampleRateHz: RATE, channels: [new Float32Array(RATE).fill(level)] })

test('a sounding voice finishes with what it began with; the next strike plays the edit', () => {
  const rig = aKit([{ bands: [[steady(0.25)]] }])
  const { loader, run, strike, memory } = live(rig)
  loader.load(rig.kit)
  strike(0)
  expect(run(100)[99]).toBe(0.25)
  const before = memory.padTable[0]
  const louder = applyEdit(rig.kit, { type: 'setPad', padId: rig.kit.pads[0].id, own: { values: { gainDb: -6.020599913279624 } } })
  loader.load(louder)
  expect(memory.padTable[0]).not.toBe(before)
  expect(run(100)[99]).toBe(0.25)
  strike(0)
  expect(run(100)[99]).toBeCloseTo(0.375, 6)
})

test('programs and samples are given back once no voice reads them, and not before', () => {
  const rig = aKit([{ bands: [[steady(0.1)]] }])
  const { loader, run, strike, memory, store } = live(rig)
  loader.load(rig.kit)
  const slot = memory.padTable[0]
  strike(0)
  run(128)
  const empty = applyEdit(rig.kit, { type: 'setPadFilling', padId: rig.kit.pads[0].id, bands: [] })
  loader.load(empty)
  run(RATE / 2)
  loader.load(empty)
  expect(memory.directory[slot]).not.toBe(0) // the voice still sounds
  run(RATE)
  loader.load(empty)
  expect(memory.directory[slot]).toBe(0)
  expect(store.usedFrames).toBe(0)
})

test('a pad is compiled again only when it, its leader or its ties changed', () => {
  const rig = aKit([{ bands: [[anImpulse()]] }, { bands: [[anImpulse()]] }])
  const { loader, memory } = live(rig)
  loader.load(rig.kit)
  const [first, second] = [memory.padTable[0], memory.padTable[1]]
  const changed = applyEdit(rig.kit, { type: 'setPad', padId: rig.kit.pads[1].id, own: { values: { pan: 1 } } })
  loader.load(changed)
  expect(memory.padTable[0]).toBe(first)
  expect(memory.padTable[1]).not.toBe(second)
  expect(memory.status[StatusField.lostEvents]).toBe(0)
})

test('the sample store uses freed places again and joins them', () => {
  const { store, memory } = live(aKit([]))
  const regions = [1000, 2000, 3000].map((frames) => store.place([new Float32Array(frames).fill(1)], RATE))
  store.free(regions[0])
  store.free(regions[1])
  const again = store.place([new Float32Array(2900).fill(2)], RATE)
  expect(again.left).toBe(regions[0].left)
  expect(memory.chunks[0]![regions[2].left]).toBe(1)
  expect(memory.chunks[0]![again.left - 1]).toBe(0)
  const huge = store.place([new Float32Array(5_000_000), new Float32Array(5_000_000)], RATE)
  expect([huge.chunk, huge.right - huge.left]).toEqual([1, 5_000_008])
})

test('a bus that moves compiles only the pads that go through it', () => {
  const rig = aKit([{ bands: [[steady(0.1)]] }, { bands: [[steady(0.1)]] }, { bands: [[steady(0.1)]] }])
  const { loader, memory } = live(rig)
  const bus = createBus('bus-1' as never, 'Room')
  const [first, second, third] = rig.kit.pads
  const edits: KitEdit[] = [
    { type: 'putBus', bus },
    { type: 'setPad', padId: first.id, own: { bus: bus.id } },
    { type: 'setRay', padId: second.id, rayId: second.rays[0].id, fields: { bus: bus.id } },
  ]
  const kit = edits.reduce(applyEdit, rig.kit)
  loader.load(kit)
  const slotsBefore = [first, second, third].map((pad) => memory.padTable[loader.slotOf(pad.id)])
  loader.load(applyEdit(kit, { type: 'putBus', bus: { ...bus, values: { gainDb: -6 } } }))
  const slotsAfter = [first, second, third].map((pad) => memory.padTable[loader.slotOf(pad.id)])
  expect(slotsAfter.map((slot, i) => slot === slotsBefore[i])).toEqual([false, false, true])
})

test('a load that finds no room keeps what sounds, and is whole when it is tried again', () => {
  const rig = aKit(Array.from({ length: 128 }, () => ({ bands: [[steady(0.1)]] })))
  const { loader, memory, run } = live(rig)
  const bus = createBus('bus-1' as never, 'Room')
  let kit = applyEdit(rig.kit, { type: 'putBus', bus })
  for (const pad of kit.pads) kit = applyEdit(kit, { type: 'setPad', padId: pad.id, own: { bus: bus.id } })
  const whole: boolean[] = []
  for (let move = 0; move < 6; move++) {
    kit = applyEdit(kit, { type: 'putBus', bus: { ...bus, values: { gainDb: -move } } })
    whole.push(loader.load(kit))
    expect(kit.pads.every((pad) => memory.padTable[loader.slotOf(pad.id)] > 0)).toBe(true)
  }
  expect(whole).toContain(false)
  run(RATE / 2)
  while (!loader.load(kit)) run(RATE / 2)
  run(RATE / 2)
  expect(loader.load(kit)).toBe(true)
})
