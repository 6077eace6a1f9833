import { aKit, anImpulse } from '../../kit/builders'
import { applyEdit } from '../../kit/kit-edit'
import { createBus } from '../../kit/make'
import { clipsOfPad } from '../../kit/resolve'
import type { Clip } from '../../kit/kit'
import type { KitEdit } from '../../kit/kit-edit'
import { createLoader } from './loader'
import { addChunk, createMemory, writeRing } from './memory'
import { EventType } from '../program/codes'
import { EventField, StatusField } from '../program/layout'
import { render } from '../render'
import { createSampleStore } from './sample-store'
import { createEngine } from '../state'

const RATE = 48000

function live(rig: ReturnType<typeof aKit>, mostSamples = Infinity) {
  const memory = createMemory(false)
  let left = mostSamples
  const createChunk = (chunk: number, frames: number) => {
    if (frames > left) throw new RangeError('WebAssembly.Memory.grow(): Unable to grow instance memory')
    left -= frames
    return addChunk(memory, chunk, frames)
  }
  const store = createSampleStore({ createChunk, written: () => undefined }, 8)
  const engine = createEngine(memory, RATE)
  const loader = createLoader(memory, store, RATE, (hash) => rig.audio.get(hash), { send: (event) => writeRing(memory, event) })
  const run = (frames: number) => {
    const left = new Float32Array(frames)
    render(engine, left, new Float32Array(frames), 0, frames)
    return left
  }
  const strike = (padSlot: number) => {
    const event = new Float64Array(EventField.length)
    event.set([-1, EventType.strike, padSlot, 127, -1])
    writeRing(memory, event)
  }
  return { memory, store, loader, run, strike }
}

const steady = (level: number) => ({ sampleRateHz: RATE, channels: [new Float32Array(RATE).fill(level)] })

test('a sounding voice keeps what it began with and follows what was moved; the next strike plays the edit', () => {
  const rig = aKit([{ bands: [[steady(0.25)]] }])
  const { loader, run, strike, memory } = live(rig)
  loader.load(rig.kit)
  strike(0)
  expect(run(100)[99]).toBe(0.25)
  const before = memory.programTable[0]
  const louder = applyEdit(rig.kit, { type: 'setPad', padId: rig.kit.pads[0].id, own: { values: { gainDb: -6.020599913279624 } } })
  loader.load(louder)
  expect(memory.programTable[0]).not.toBe(before)
  const following = run(2400)
  const steepest = following.reduce((most, level, i) => Math.max(most, Math.abs(level - (i === 0 ? 0.25 : following[i - 1]))), 0)
  expect([following[0], steepest < 0.001]).toEqual([0.25, true])
  expect(following[2399]).toBeCloseTo(0.125, 5)
  const silent = applyEdit(louder, { type: 'setPadFilling', padId: rig.kit.pads[0].id, bands: [] })
  loader.load(silent)
  expect(run(100)[99]).toBeCloseTo(0.125, 5)
  loader.load(louder)
  strike(0)
  expect(run(100)[99]).toBeCloseTo(0.25, 5)
})

test('programs and samples are given back once no voice reads them, and not before', () => {
  const rig = aKit([{ bands: [[steady(0.1)]] }])
  const { loader, run, strike, memory, store } = live(rig)
  loader.load(rig.kit)
  const slot = memory.programTable[0]
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
  expect(store.usedSamples).toBe(0)
})

test('a pad is compiled again only when it, its leader or its ties changed', () => {
  const rig = aKit([{ bands: [[anImpulse()]] }, { bands: [[anImpulse()]] }])
  const { loader, memory } = live(rig)
  loader.load(rig.kit)
  const [first, second] = [memory.programTable[0], memory.programTable[1]]
  const changed = applyEdit(rig.kit, { type: 'setPad', padId: rig.kit.pads[1].id, own: { values: { pan: 1 } } })
  loader.load(changed)
  expect(memory.programTable[0]).toBe(first)
  expect(memory.programTable[1]).not.toBe(second)
  expect(memory.status[StatusField.lostEvents]).toBe(0)
})

test('audio that was let go sounds on through edits; a clip that is cut anew waits for it and sounds as it did', () => {
  const rig = aKit([{ bands: [[steady(0.25)]] }])
  const audio = new Map(rig.audio)
  const { loader, run, strike } = live({ ...rig, audio })
  const [pad] = rig.kit.pads
  expect(loader.load(rig.kit)).toBe(true)
  audio.clear()
  const turned = applyEdit(rig.kit, { type: 'setPad', padId: pad.id, own: { values: { pan: 0.5 } } })
  loader.load(turned)
  expect(loader.lacking().size).toBe(0)
  strike(0)
  expect(run(100)[99]).toBeCloseTo(0.25 * Math.SQRT1_2, 6)
  const bands = turned.pads[0].bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), reverse: true }])) })) })) // prettier-ignore
  const cut = applyEdit(applyEdit(turned, { type: 'setPadFilling', padId: pad.id, bands }), { type: 'setPad', padId: pad.id, own: { values: { pan: -1 } } }) // prettier-ignore
  loader.load(cut)
  expect([...loader.lacking()]).toEqual([...rig.audio.keys()])
  run(RATE)
  strike(0)
  expect(run(100)[99]).toBeCloseTo(0.25 * Math.SQRT1_2, 6)
  for (const [hash, one] of rig.audio) audio.set(hash, one)
  loader.load(cut)
  expect(loader.lacking().size).toBe(0)
  run(RATE)
  strike(0)
  expect(run(100)[99]).toBeCloseTo(0.25 * Math.SQRT2, 6)
})

test('a clip that is read fast has levels of lower rates, one that goes round is surrounded by itself', () => {
  const rig = aKit([{ bands: [[steady(0.25)]] }, { own: { mode: 'loopUntilLetGo' }, bands: [[{ sampleRateHz: RATE, channels: [Float32Array.of(0.1, 0.2, 0.3)] }]] }]) // prettier-ignore
  const { loader, store, memory } = live(rig)
  loader.load(rig.kit)
  expect(memory.chunks[0]![48]).toBe(0.25)
  const around = Array.from(memory.chunks[0]!.subarray(RATE + 2 * 48 + 45, RATE + 2 * 48 + 54), (one) => Math.round(one * 10))
  expect(around).toEqual([1, 2, 3, 1, 2, 3, 1, 2, 3])
  const used = store.usedSamples
  const [pad] = rig.kit.pads
  loader.load(applyEdit(rig.kit, { type: 'setPad', padId: pad.id, own: { values: { tuneCents: 1200 } } }))
  expect(store.usedSamples - used).toBe(RATE + 48 * 2 + RATE / 2 + 48 * 2) // the old one is read until the engine has switched
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
  expect([huge.chunk, huge.right - huge.left]).toEqual([1, 5_000_096])
})

test('a fader compiles nothing, and what sounds follows it without a step', () => {
  const rig = aKit([{ bands: [[steady(0.25)]] }, { bands: [[steady(0.1)]] }])
  const { loader, memory, run, strike } = live(rig)
  const bus = createBus('bus-1' as never, 'Room')
  const [first, second] = rig.kit.pads
  const edits: KitEdit[] = [
    { type: 'putBus', bus },
    { type: 'setPad', padId: first.id, own: { bus: bus.id } },
    { type: 'setRay', padId: second.id, rayId: second.rays[0].id, fields: { bus: bus.id } },
  ]
  const kit = edits.reduce(applyEdit, rig.kit)
  loader.load(kit)
  strike(0)
  expect(run(100)[99]).toBe(0.25)
  const table = [...memory.programTable]
  const halved = applyEdit(kit, { type: 'putBus', bus: { ...bus, values: { gainDb: -6.020599913279624 } } })
  loader.load(halved)
  const left = run(9000)
  expect([...memory.programTable]).toEqual(table)
  expect(left[8999]).toBeCloseTo(0.125, 6)
  expect(left.every((level, i) => i === 0 || Math.abs(level - left[i - 1]) < 0.001)).toBe(true)
  loader.load(applyEdit(halved, { type: 'putBus', bus: { ...bus, mute: true } }))
  expect(run(20000)[19999]).toBe(0)
  loader.load(applyEdit(halved, { type: 'putBus', bus: { ...bus, values: { pan: -1 } } }))
  expect(run(9000)[8999]).toBeCloseTo(0.25 * Math.SQRT2, 5)
  expect([...memory.programTable]).toEqual(table)
})

test('a load that finds no room keeps what sounds, and is whole when it is tried again', () => {
  const rig = aKit(Array.from({ length: 128 }, () => ({ bands: [[steady(0.1)]] })))
  const { loader, memory, run } = live(rig)
  let kit = rig.kit
  const whole: boolean[] = []
  for (let move = 0; move < 6; move++) {
    for (const pad of kit.pads) kit = applyEdit(kit, { type: 'setPad', padId: pad.id, own: { maxStrikes: 1 + move } })
    whole.push(loader.load(kit))
    expect(kit.pads.every((pad) => memory.programTable[loader.slotOf(pad.id)] > 0)).toBe(true)
  }
  expect(whole).toContain(false)
  run(RATE / 2)
  while (!loader.load(kit)) run(RATE / 2)
  run(RATE / 2)
  expect(loader.load(kit)).toBe(true)
})

test('what a device has no memory for is silent and named, everything else plays; it comes once samples were given back', () => {
  const rig = aKit([{ bands: [[steady(0.25)]] }, { bands: [[steady(0.5)]] }])
  const { loader, run, strike } = live(rig, RATE + 1000)
  const [first, second] = rig.kit.pads
  const audioOf = (pad: typeof first) => clipsOfPad(pad)[0].audio
  expect(loader.load(rig.kit)).toBe(true)
  expect([...loader.refused()]).toEqual([audioOf(second)])
  strike(loader.slotOf(first.id))
  strike(loader.slotOf(second.id))
  expect(run(100)[99]).toBe(0.25)
  const alone = applyEdit(rig.kit, { type: 'removePad', padId: first.id })
  loader.load(alone)
  run(RATE) // until nothing reads it any more
  loader.load(alone)
  expect([...loader.refused()]).toEqual([])
  strike(loader.slotOf(second.id))
  expect(run(100)[99]).toBe(0.5)
})

test('a new kit is laid out at a pace, what is wanted first before all others; what is there already is never left for later', () => {
  const rig = aKit([1, 2, 3, 4].map((i) => ({ bands: [[steady(i / 10)]] })))
  const { loader, run, strike } = live(rig)
  const [, , third, fourth] = rig.kit.pads
  let left = 0
  const pace = (pads: number) => {
    left = pads
    return { first: fourth.id, isOver: () => left-- <= 0 }
  }
  const laidOut = () => rig.kit.pads.map(({ id }) => loader.isLaidOut(id))
  expect(loader.load(rig.kit, undefined, pace(0))).toBe(false)
  expect(laidOut()).toEqual([true, false, false, true])
  strike(3)
  expect(run(100)[99]).toBeCloseTo(0.4, 5)
  strike(2)
  expect(run(100)[99]).toBeCloseTo(0.4, 5) // silent until it is laid out
  const quieter = applyEdit(rig.kit, { type: 'setPad', padId: fourth.id, own: { values: { gainDb: -120 } } })
  expect(loader.load(quieter, undefined, pace(0))).toBe(false)
  expect(laidOut()).toEqual([true, true, false, true])
  expect(run(4800)[4799]).toBeCloseTo(0, 4)
  expect(loader.load(quieter, undefined, { isOver: () => false })).toBe(true)
  strike(loader.slotOf(third.id))
  expect(run(100)[99]).toBeCloseTo(0.3, 5)
  expect(loader.load(quieter, undefined, pace(0))).toBe(true)
})

test('on a device so slow that each pace is over before it begins, a kit is laid out all the same, a pad each time', () => {
  const rig = aKit([1, 2, 3, 4, 5].map((i) => ({ bands: [[steady(i / 10)]] })))
  const { loader } = live(rig)
  let loads = 1
  while (!loader.load(rig.kit, undefined, { isOver: () => true }) && loads < 20) loads++
  expect(loads).toBe(rig.kit.pads.length)
})

test('sounds that have come are laid out at a pace as well, what is wanted first before all others; an edit never waits', () => {
  const rig = aKit([1, 2, 3, 4].map((i) => ({ bands: [[steady(i / 10)]] })))
  const there = new Map(rig.audio)
  const { loader, run, strike } = live(rig)
  rig.audio.clear()
  loader.load(rig.kit)
  for (const [hash, audio] of there) rig.audio.set(hash, audio)
  const [, second, , fourth] = rig.kit.pads
  const over = { first: fourth.id, isOver: () => true }
  expect(loader.load(rig.kit, undefined, over)).toBe(false)
  expect(loader.lacking().size).toBe(2)
  strike(3)
  expect(run(100)[99]).toBeCloseTo(0.4, 5)
  const quieter = applyEdit(rig.kit, { type: 'setPad', padId: second.id, own: { values: { gainDb: -6 } } })
  const third = quieter.pads[2]
  expect(loader.load(quieter, undefined, { first: third.id, isOver: () => true })).toBe(true)
  expect(loader.lacking().size).toBe(0)
})

test('pads whose sounds have not come stay as they are, however often a kit is loaded; one that comes makes its own pad anew, and no other', () => {
  const rig = aKit([1, 2, 3].map((i) => ({ bands: [[steady(i / 10)]] })))
  const there = new Map(rig.audio)
  const { loader, run, strike, memory } = live(rig)
  rig.audio.clear()
  const programs = () => [...memory.programTable.subarray(0, 3)]
  loader.load(rig.kit)
  const before = programs()
  expect(loader.lacking().size).toBe(3)
  for (const name of ['Slip', 'Quay']) loader.load({ ...rig.kit, name, pads: [...rig.kit.pads] })
  expect(programs()).toEqual(before)
  const [hash, audio] = [...there][1]
  rig.audio.set(hash, audio)
  loader.load(rig.kit)
  expect(programs().map((slot, i) => slot === before[i])).toEqual([true, false, true])
  expect(loader.lacking().size).toBe(2)
  strike(1)
  expect(run(100)[99]).toBeCloseTo(0.2, 5)
})
