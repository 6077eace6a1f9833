import { aKit, seeded } from '../../kit/builders'
import type { BusId } from '../../kit/ids'
import type { Bus, Insert, Kit, Ray } from '../../kit/kit'
import { createBus } from '../../kit/make'
import { responseTo } from '../../kit/responses'
import type { Response } from '../../kit/shape'
import { createOffline, renderOffline, toScore } from '../offline'
import { readActs } from '../acts'
import type { ScoreEvent } from '../offline'
import { controlNumbers, EventType } from '../program/codes'
import { DoneField, EventField, MAX_BUSES, StatusField } from '../program/layout'
import { act, render } from '../render'
import { addEvent } from '../events'
import { createEngine } from '../state'
import { createMemory, doneOf } from '../memory/memory'
import { LIMITER_CEILING } from './limiter'

const RATE = 48000
const HALF_DB = -6.020599913279624
const steady = (level: number, frames = 9000) => ({ sampleRateHz: RATE, channels: [new Float32Array(frames).fill(level)] })
const bus = (id: string, more: Partial<Bus> = {}): Bus => ({ ...createBus(id as BusId, id), ...more })
const strike = (padSlot: number, frame = 0): ScoreEvent => ({ frame, type: EventType.strike, padSlot, velocity: 127 })
const send = (busId: string, gainDb = 0, tap: 'pre' | 'post' = 'post') => ({ busId: busId as BusId, values: { gainDb }, tap })

function withRays({ kit, audio }: ReturnType<typeof aKit>, change: (ray: Ray, pad: number) => Partial<Ray>, buses: Bus[]) {
  const pads = kit.pads.map((pad, i) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, ...change(ray, i) })) }))
  return { audio, kit: { ...kit, pads, buses } }
}

function played({ kit, audio }: { kit: Kit; audio: ReturnType<typeof aKit>['audio'] }, events: ScoreEvent[], frames = 400) {
  const { engine } = createOffline(kit, RATE, (hash) => audio.get(hash))
  return renderOffline(engine, toScore(events), frames)
}
/** What the second half of a render stands at, left and right. */
const standing = ([left, right]: [Float32Array, Float32Array]) => [left, right].map((side) => Number(side[side.length - 1].toFixed(5)))

test('buses go into each other, their levels multiply and their places add up', () => {
  const rig = aKit([{ bands: [[steady(0.5)]] }])
  const way = [
    bus('a', { values: { gainDb: HALF_DB, pan: -0.25 }, out: 'b' as BusId }),
    bus('b', { values: { gainDb: HALF_DB, pan: -0.25 } }),
  ]
  const through = (buses: Bus[], more: Partial<Ray> = {}) =>
    standing(
      played(
        withRays(rig, () => ({ bus: 'a' as BusId, ...more }), buses),
        [strike(0)],
      ),
    )
  const expected = [0.125 * Math.sqrt(1.5), 0.125 * Math.sqrt(0.5)].map((level) => Number(level.toFixed(5)))
  expect(through(way)).toEqual(expected)
  expect(through([...way].reverse())).toEqual(expected) // whatever order they stand in
  expect(through([way[0], { ...way[1], mute: true }])).toEqual([0, 0])
  expect(through(way, { values: { pan: -1 } })[1]).toBe(0)
})

test('sends leave before the fader or after it, of rays and of buses', () => {
  const rig = aKit([{ own: { values: { gainDb: HALF_DB } }, bands: [[steady(0.5)]] }])
  const room = bus('room', { isReturn: true })
  const sent = (tap: 'pre' | 'post') =>
    standing(
      played(
        withRays(rig, () => ({ sends: [send('room', HALF_DB, tap)] }), [room]),
        [strike(0)],
      ),
    )[0]
  expect([sent('post'), sent('pre')]).toEqual([0.25 + 0.125, 0.25 + 0.25])
  const main = (tap: 'pre' | 'post') => bus('main', { values: { gainDb: HALF_DB }, sends: [send('room', 0, tap)] })
  const fromBus = (tap: 'pre' | 'post') =>
    standing(
      played(
        withRays(rig, () => ({ bus: 'main' as BusId }), [room, main(tap)]),
        [strike(0)],
      ),
    )[0]
  expect([fromBus('post'), fromBus('pre')]).toEqual([0.125 + 0.125, 0.125 + 0.25])
  const moved = bus('room', { isReturn: true, values: { pan: 1 } })
  const [left, right] = standing(
    played(
      withRays(rig, () => ({ sends: [send('room')] }), [moved]),
      [strike(0)],
    ),
  )
  expect([left, right]).toEqual([0.25, Number((0.25 + 0.25 * Math.SQRT2).toFixed(5))])
})

const width = (id: string, share: number, more: Partial<Insert> = {}): Insert => ({ id: id as Insert['id'], kind: 'width', values: { width: share }, choices: {}, bypass: false, ...more }) // prettier-ignore

test('what is put into a bus and into the kit sounds in order; one that changes nothing changes no bit', () => {
  const stereo = { sampleRateHz: RATE, channels: [new Float32Array(9000).fill(0.4), new Float32Array(9000).fill(0.2)] }
  const rig = aKit([{ bands: [[stereo]] }])
  const through = (ofBus: Insert[], ofKit: Insert[] = []) => {
    const { kit, audio } = withRays(rig, () => ({ bus: 'a' as BusId }), [bus('a', { inserts: ofBus })])
    return standing(played({ audio, kit: { ...kit, inserts: ofKit } }, [strike(0)]))
  }
  const close = (given: number[], expected: number[]) => given.forEach((one, i) => expect(one).toBeCloseTo(expected[i], 5))
  expect(through([])).toEqual([0.4, 0.2].map((one) => Number(Math.fround(one).toFixed(5))))
  close(through([width('w', 0)]), [0.3, 0.3])
  close(through([width('w', 2)]), [0.5, 0.1])
  close(through([width('w', 2), width('v', 0.5)]), [0.4, 0.2])
  close(through([width('w', 0, { bypass: true })]), [0.4, 0.2])
  close(through([width('w', 2)], [width('m', 0)]), [0.3, 0.3])
  const plain = played(
    withRays(rig, () => ({ bus: 'a' as BusId }), [bus('a')]),
    [strike(0)],
  )
  expect(
    played(
      withRays(rig, () => ({ bus: 'a' as BusId }), [bus('a', { inserts: [width('w', 1)] })]),
      [strike(0)],
    ),
  ).toEqual(plain)
})

test('putting an effect in or out goes over in 10 ms, its numbers near where they are put, in blocks of any size', () => {
  const stereo = { sampleRateHz: RATE, channels: [new Float32Array(30000).fill(0.4), new Float32Array(30000).fill(0.2)] }
  const rig = aKit([{ bands: [[stereo]] }])
  const edited = (block: number) => {
    const { kit, audio } = withRays(rig, () => ({ bus: 'a' as BusId }), [bus('a')])
    const { engine, loader } = createOffline(kit, RATE, (hash) => audio.get(hash))
    const out: number[] = []
    const run = (frames: number) => out.push(...renderOffline(engine, frames === 2000 && out.length === 0 ? toScore([strike(0)]) : new Float64Array(0), frames, block)[0]) // prettier-ignore
    run(2000)
    for (const inserts of [[width('w', 0)], [width('w', 2)], [width('v', 1), width('w', 2)], []]) {
      loader.load({ ...kit, buses: [bus('a', { inserts })] })
      run(5003)
    }
    return out
  }
  const left = edited(4096)
  const at = (frame: number) => Math.round(left[frame] * 1000) / 1000
  expect([1999, 2240, 2480, 7000, 12000, 12240, 17000, 17240, 22000].map(at)).toEqual([0.4, 0.35, 0.3, 0.3, 0.5, 0.5, 0.5, 0.452, 0.4])
  expect(left.every((sample, i) => i === 0 || Math.abs(sample - left[i - 1]) < 0.001)).toBe(true)
  expect(edited(101)).toEqual(left)
})

/** How far one render lies from another, dB against it. */
function residueDb(of: Float32Array, against: Float32Array): number {
  const error = of.reduce((sum, sample, i) => sum + (sample - against[i]) ** 2, 0)
  return 10 * Math.log10(error / against.reduce((sum, sample) => sum + sample ** 2, 0) + 1e-30)
}

test('a wheel, an oscillator or a tiller moves the level of a bus, and of the kit, as it would move that of a pad', () => {
  const rig = aKit([{ bands: [[steady(0.5)]] }])
  const level = bus('all', { values: { gainDb: -6 } })
  const sway = {
    id: 'sway',
    name: 'Sway',
    wave: 'sine' as const,
    rate: { unit: 'Hz' as const, value: 6 },
    runs: 'always' as const,
    phase: 0.1,
  }
  const lead = (scope: 'bus' | 'pad' | 'kit', id: string | undefined, from: number, to: number) => ({ id: 't', name: 'Loud', value: 0.25, to: [{ id: 'x', address: { scope, ...(id ? { id } : {}), param: 'gainDb' }, from, to }] }) // prettier-ignore
  const moves: ScoreEvent[] = [{ frame: 500, type: EventType.controller, padSlot: 0, note: 1, velocity: 127 }, { frame: 2300, type: EventType.controller, padSlot: 0, note: 1, velocity: 30 }] // prettier-ignore
  const through = (responses: readonly Response[], more: Partial<Kit>) => {
    const { kit, audio } = withRays(rig, () => ({ bus: 'all' as BusId }), [level])
    const pads = kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, responses: [...responses] } }))
    return played({ audio, kit: { ...kit, pads, oscillators: [sway], ...more } }, [strike(0), ...moves], 5000)[0]
  }
  const [pad] = rig.kit.pads
  for (const from of [{ kind: 'wheel' as const }, { kind: 'oscillator' as const, id: 'sway' }]) {
    const response = { ...responseTo('wheel', 'gainDb', -18), from }
    const ofPad = through([response], {})
    for (const address of [{ scope: 'bus' as const, id: 'all' }, { scope: 'kit' as const }]) {
      const ofBus = through([], { responses: [{ ...response, to: [{ ...address, param: 'gainDb' }] }] })
      expect(residueDb(ofBus, ofPad)).toBeLessThan(-80) // a pad looks at its oscillators every fourth frame
      expect(ofBus[0]).not.toBe(ofBus[4000])
    }
  }
  const led = through([], { tillers: [lead('bus', 'all', -26, -6)] })
  expect(led[4000]).toBeCloseTo(0.5 * 10 ** (-21 / 20), 5)
  expect(through([], { tillers: [lead('kit', undefined, -20, 0)] })[4000]).toBeCloseTo(0.5 * 10 ** (-21 / 20), 5)
  expect(through([], { tillers: [lead('pad', pad.id, -20, 0)] })[4000]).toBeCloseTo(0.5 * 10 ** (-21 / 20), 5)
})

test('what sounds follows the sends of its ray; from before the fader it does not follow the fader', () => {
  const rig = aKit([{ bands: [[steady(0.25, 60000)]] }])
  const sentBy = (sends: Ray['sends'], gainDb = 0) =>
    withRays(rig, () => ({ sends, values: { gainDb } }), [bus('room', { isReturn: true })])
  const through = (from: ReturnType<typeof sentBy>, to: ReturnType<typeof sentBy>) => {
    const { engine, loader } = createOffline(from.kit, RATE, (hash) => from.audio.get(hash))
    const [before] = renderOffline(engine, toScore([strike(0)]), 1000)
    loader.load(to.kit)
    const [after] = renderOffline(engine, new Float64Array(0), 12000)
    const steps = after.map((sample, i) => Math.abs(sample - (i === 0 ? before[999] : after[i - 1])))
    expect(Math.max(...steps)).toBeLessThan(0.5 * 0.004) // a step of 0.03 dB
    return [before[999], after[11999]].map((level) => Math.round(level * 1000) / 1000)
  }
  expect(through(sentBy([send('room')]), sentBy([send('room', HALF_DB)]))).toEqual([0.5, 0.375])
  expect(through(sentBy([send('room')]), sentBy([]))).toEqual([0.5, 0.25])
  expect(through(sentBy([send('room')]), sentBy([send('room')], HALF_DB))).toEqual([0.5, 0.25])
  expect(through(sentBy([send('room', 0, 'pre')]), sentBy([send('room', 0, 'pre')], HALF_DB))).toEqual([0.5, 0.375])
})

/** A kit of several pads on buses that go everywhere. */
function everywhere() {
  const rig = aKit(
    Array.from({ length: 4 }, (_, i) => ({ own: { values: { gainDb: -12, pan: i / 3 - 0.5 } }, bands: [[steady(0.9, 3000 + 500 * i)]] })),
  )
  const buses = [
    bus('room', { isReturn: true, values: { gainDb: -3, pan: 0.4 } }),
    bus('low', { values: { gainDb: -2, pan: -0.3 }, out: 'all' as BusId, sends: [send('room', -9)] }),
    bus('all', { values: { gainDb: 1 }, sends: [send('room', -12, 'pre')] }),
  ]
  return withRays(rig, (_, pad) => ({ ...(pad === 0 ? {} : { bus: (pad === 1 ? 'low' : 'all') as BusId }), sends: pad === 3 ? [send('room', -6, 'pre')] : [] }), buses) // prettier-ignore
}

test('stems add up to the mix before its level and the limiter, within -120 dB', () => {
  const { kit, audio } = everywhere()
  const { engine, loader } = createOffline({ ...kit, values: { gainDb: 9 } }, RATE, (hash) => audio.get(hash))
  const frames = 6000
  const block = () => ({ left: new Float64Array(frames), right: new Float64Array(frames) })
  const slots = [0, ...kit.buses.map(({ id }) => loader.busSlotOf(id))]
  const inside = loader.busSlotOf('low' as BusId) // it goes into another
  const stems = slots.map((slot) => ({ slot, ...block() }))
  const sum = block()
  const tap = { left: new Float32Array(frames), right: new Float32Array(frames), stems, sum }
  const events = [0, 1, 2, 3].map((pad) => strike(pad, 300 * pad))
  renderOffline(engine, toScore(events), frames, 512, { tap })
  let [error, power] = [0, 0]
  for (let i = 0; i < frames; i++) {
    const added = stems.reduce((total, { left, slot }) => total + (slot === inside ? 0 : left[i]), 0)
    error += (added - sum.left[i]) ** 2
    power += sum.left[i] ** 2
  }
  expect(power / frames).toBeGreaterThan(0.01)
  expect(10 * Math.log10(error / power + 1e-30)).toBeLessThan(-120)
  expect(stems.filter(({ left }) => left.some((sample) => sample !== 0)).map(({ slot }) => slot)).toEqual(slots) // prettier-ignore
})

test('after its last sound an engine is as a fresh one: buses, faders and limiter stand exactly', () => {
  const { kit, audio } = everywhere()
  const events = [0, 1, 2, 3].map((pad) => strike(pad, 100 * pad))
  const used = createOffline({ ...kit, values: { gainDb: 30 } }, RATE, (hash) => audio.get(hash)).engine
  used.score = toScore(events)
  const fresh = createOffline({ ...kit, values: { gainDb: 30 } }, RATE, (hash) => audio.get(hash)).engine
  renderOffline(used, toScore(events), 2 * RATE)
  expect(used.limiterGain).toBe(1)
  expect([...used.mix.gain]).toEqual([...fresh.mix.gain])
  expect([...used.mix.sendGain]).toEqual([...fresh.mix.sendGain])
  for (let slot = 1; slot < MAX_BUSES; slot++) expect(used.mix.left[slot].every((sample) => sample === 0)).toBe(true)
  expect(used.voices.active.some((one) => one !== 0)).toBe(false)
})

/** Moves that a person might make, from a seed: strikes, let-gos, controls, faders, a stop. */
function anyMove(random: () => number, frame: number): ScoreEvent {
  const draw = random()
  const padSlot = Math.floor(random() * 4)
  if (draw < 0.6) return { frame, type: EventType.strike, padSlot, velocity: 1 + Math.floor(random() * 127), key: 1 + padSlot }
  if (draw < 0.7) return { frame, type: EventType.release, padSlot, key: 1 + padSlot }
  if (draw < 0.82) return { frame, type: EventType.controller, padSlot: 0, note: 1, velocity: Math.floor(random() * 128) }
  if (draw < 0.9) return { frame, type: EventType.controller, padSlot: 0, note: controlNumbers.bend, velocity: 2 * random() - 1 }
  if (draw < 0.98)
    return { frame, type: EventType.fader, padSlot: Math.floor(random() * 4), note: Math.floor(random() * 3), velocity: random() }
  return { frame, type: EventType.stopAll, padSlot: 0 }
}

test('what was played live is rendered again from what acted, in other blocks, to the bit', () => {
  const { kit, audio } = everywhere()
  const pads = kit.pads.map((pad, i) => ({
    ...pad,
    own: { ...pad.own, responses: [responseTo('wheel', 'gainDb', -9), responseTo('bend', 'tuneCents', 300 * i)] },
  }))
  const live = createOffline({ ...kit, pads }, RATE, (hash) => audio.get(hash)).engine
  const random = seeded(3)
  const blocks = 200
  const [left, right] = [new Float32Array(blocks * 128), new Float32Array(blocks * 128)]
  for (let block = 0; block < blocks; block++) {
    if (random() < 0.5) act(live, toScore([anyMove(random, live.frame)]).subarray(0, EventField.length))
    render(live, left, right, block * 128, 128)
  }
  const again = createOffline({ ...kit, pads }, RATE, (hash) => audio.get(hash)).engine
  const acts = readActs(live.memory, 1) // without the kit's own, which this engine has taken
  expect(acts.length / EventField.length).toBeGreaterThan(60)
  expect(renderOffline(again, acts, blocks * 128, 101)).toEqual([left, right])
  expect(left.some((sample) => Math.abs(sample) > 0.1)).toBe(true)
})

test('events that wait come in order of their frames and then of their coming; those without room are counted', () => {
  const memory = createMemory(false)
  const engine = createEngine(memory, RATE)
  const random = seeded(9)
  const events = Array.from({ length: 33000 }, (_, i): ScoreEvent => ({
    frame: 1 + Math.floor(random() * 500),
    type: EventType.controller,
    padSlot: 0,
    note: i % 128,
    velocity: i,
  }))
  for (const event of events) addTo(engine, event)
  expect(memory.status[StatusField.lostEvents]).toBe(33000 - 32768)
  const kept = events.slice(0, 32768)
  const reached: number[] = []
  const expected = kept.map(({ frame, velocity }) => ({ frame, velocity })).sort((a, b) => a.frame - b.frame) // stable, as it came
  for (let frame = 0; frame <= 501; frame++) {
    const from = doneOf(memory, DoneField.acts)
    render(engine, new Float32Array(1), new Float32Array(1), 0, 1)
    const acts = readActs(memory, from)
    for (let i = 0; i < acts.length; i += EventField.length) reached.push(acts[i + EventField.velocity])
  }
  expect(reached).toEqual(expected.map(({ velocity }) => velocity))
})

function addTo(engine: ReturnType<typeof createEngine>, event: ScoreEvent): void {
  addEvent(engine, toScore([event]), 0)
}

test('where voices run out whole strikes end, each counted, and every microphone of the others sounds', () => {
  const rig = aKit([{ own: { maxStrikes: 128 }, bands: [[steady(0.001, 30000)]] }])
  const [pad] = rig.kit.pads
  const rays = Array.from({ length: 32 }, (_, i) => ({ ...pad.rays[0], id: `ray-${i}` as Ray['id'], microphone: true }))
  const [clip] = Object.values(pad.bands[0].turns[0].clips)
  const turns = [{ ...pad.bands[0].turns[0], clips: Object.fromEntries(rays.map(({ id }) => [id, clip])) }]
  const kit: Kit = { ...rig.kit, maxStrikes: 128, pads: [{ ...pad, rays, bands: [{ ...pad.bands[0], turns }] }] }
  const { engine } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  const records: number[] = []
  const events = Array.from({ length: 40 }, (_, i) => strike(0, 10 * i))
  const [left] = renderOffline(engine, toScore(events), 1000, 512, ({ rays: sounded }) => records.push(sounded.length))
  expect(records).toEqual(Array.from({ length: 40 }, () => 32))
  const { active, voices } = engine.strikes
  expect([...voices].filter((_, slot) => active[slot] !== 0).every((count) => count === 32)).toBe(true)
  expect(engine.memory.status[StatusField.lostStrikes]).toBeGreaterThan(20)
  expect(left[999]).toBeCloseTo(0.001 * [...voices].reduce((sum, count) => sum + count, 0), 5)
})

test('whatever is played and moved, what comes out is a number and never above the ceiling', () => {
  const { kit, audio } = everywhere()
  const wild = [responseTo('wheel', 'gainDb', 24000), responseTo('bend', 'tuneCents', 24000), responseTo('velocity', 'startSeconds', -0.03), responseTo('chance', 'decayScale', 9000), responseTo('bend', 'filter1CutoffHz', 24000), responseTo('wheel', 'filter1Damping', -500)] // prettier-ignore
  const pads = kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, choices: { filter1Kind: 'highPass' as const }, values: { ...pad.own.values, gainDb: 60 }, responses: wild } })) // prettier-ignore
  for (let seed = 1; seed <= 5; seed++) {
    const random = seeded(seed)
    const { engine } = createOffline({ ...kit, pads, values: { gainDb: 60 } }, RATE, (hash) => audio.get(hash))
    const events = Array.from({ length: 300 }, () => anyMove(random, Math.floor(random() * 20000)))
    for (const side of renderOffline(engine, toScore(events), 24000, 333)) {
      expect(side.every((sample) => Number.isFinite(sample) && Math.abs(sample) <= LIMITER_CEILING)).toBe(true)
      expect(side.some((sample) => sample !== 0)).toBe(true)
    }
  }
})

test('a bus on a pair of its own leaves there behind its fader, and the mix is as if it were muted; what it sends goes on', () => {
  const rig = aKit([{ bands: [[steady(0.5)]] }, { bands: [[steady(0.25)]] }])
  const room = bus('room', { isReturn: true })
  const buses = [bus('a', { values: { gainDb: HALF_DB }, sends: [send('room', HALF_DB)] }), bus('b'), room]
  const kit = withRays(rig, (_, pad) => ({ bus: (pad === 0 ? 'a' : 'b') as BusId }), buses)
  const routed = (pairOf: Record<string, number>, channels = 4, block = 100) => {
    const { engine, loader } = createOffline({ ...kit.kit, values: { gainDb: HALF_DB } }, RATE, (hash) => rig.audio.get(hash))
    engine.score = toScore([strike(loader.slotOf(kit.kit.pads[0].id)), strike(loader.slotOf(kit.kit.pads[1].id))])
    const ofSlot = new Int32Array(MAX_BUSES)
    for (const [id, pair] of Object.entries(pairOf)) ofSlot[loader.busSlotOf(id as BusId)] = pair
    const out = [0, 1].map(() => new Float32Array(400))
    const outs = Array.from({ length: channels }, () => new Float32Array(400))
    const tap = { left: new Float32Array(400), right: new Float32Array(400), pairs: { ofSlot, channels: outs } }
    for (let at = 0; at < 400; at += block) render(engine, out[0], out[1], at, Math.min(block, 400 - at), tap)
    return [...out, ...outs].map((side) => Number(side[399].toFixed(5)))
  }
  const whole = 0.5 * (0.25 + 0.25 * 0.5 + 0.25)
  expect(routed({})).toEqual([whole, whole, 0, 0, 0, 0])
  expect(routed({ a: 1 })).toEqual([0.5 * (0.25 * 0.5 + 0.25), 0.5 * (0.25 * 0.5 + 0.25), 0.25, 0.25, 0, 0])
  expect(routed({ a: 1 }, 4, 7)).toEqual(routed({ a: 1 }))
  expect(routed({ a: 2, b: 2 })).toEqual([0.0625, 0.0625, 0, 0, 0.5, 0.5])
  expect(routed({ a: 3 })).toEqual([0.1875, 0.1875, 0, 0, 0, 0]) // no such channels: it is not heard, and nothing breaks
})
