/** @jest-environment node */
import { seeded } from '../../../kit/builders'
import { effectChoices, effectKinds, effects } from '../../../kit/effects'
import type { AudioHash } from '../../../kit/ids'
import type { Insert } from '../../../kit/kit'
import { UNIT_METERS } from '../../memory/memory'
import { createOffline, renderOffline, toScore } from '../../offline'
import { EventType } from '../../program/codes'
import { UnitField } from '../../program/layout'
import { anInsert, click, EFFECT_RATE_HZ, kitThrough, sine, throughEffects } from '../../testing/through-effects'

const IMPULSE = 'c'.repeat(64) as AudioHash
const impulses = new Map([[IMPULSE, { sampleRateHz: 44100, channels: [fading(9000, 3), fading(9000, 4)] }]])

function noise(frames: number, seed: number, level = 0.3): Float32Array {
  const random = seeded(seed)
  return Float32Array.from({ length: frames }, () => level * (2 * random() - 1))
}

function fading(frames: number, seed: number): Float32Array {
  return noise(frames, seed, 1).map((sample, i) => sample * Math.exp(-i / 2000))
}

/** An effect of a kind with settings anywhere in their ranges; times are kept short. */
function anyInsert(kind: Insert['kind'], seed: number): Insert {
  const random = seeded(seed * 77 + effectKinds.indexOf(kind))
  const values = Object.fromEntries(
    Object.entries(effects[kind]).map(([name, { min, max, usual }]) => {
      const high = /econds|beats|size/.test(name) ? Math.min(max, 0.1) : max
      return [name, random() < 0.3 ? usual : Math.max(min, min + random() * (high - min))]
    }),
  )
  const choices = Object.fromEntries(Object.entries(effectChoices[kind] ?? {}).map(([name, list]) => [name, list[Math.floor(random() * list.length)]])) // prettier-ignore
  return anInsert(kind, values, { choices, ...(kind === 'room' ? { audio: IMPULSE } : {}) })
}

test('every effect with any settings gives the same bits by the kernel and without it, in blocks of any size', () => {
  const sound = [noise(1500, 1), noise(1500, 2)]
  for (const kind of effectKinds)
    for (let seed = 1; seed <= 3; seed++) {
      const inserts = [anyInsert(kind, seed)]
      const of = { inserts, frames: 3000, impulses, rateHz: seed === 2 ? 44100 : 48000 }
      const whole = throughEffects(sound, of)
      expect([kind, seed, whole[0].every(Number.isFinite), whole[0].some((sample) => sample !== 0)]).toEqual([kind, seed, true, true])
      expect([kind, seed, throughEffects(sound, { ...of, isPlain: true, block: 101 })]).toEqual([kind, seed, whole])
      expect([kind, seed, throughEffects(sound, { ...of, block: seed === 3 ? 1 : 37 })]).toEqual([kind, seed, whole])
      expect([kind, seed, throughEffects(sound, { ...of, block: 4096 })]).toEqual([kind, seed, whole])
    }
})

test('what is off passes every bit: bypassed, without gain, below its threshold, not mixed in', () => {
  const sound = [noise(4000, 5, 0.2), noise(4000, 6, 0.2)]
  const plain = throughEffects(sound, { frames: 5000 })
  const off: Insert[] = [
    ...effectKinds.map((kind) => ({ ...anyInsert(kind, 1), bypass: true })),
    anInsert('equaliser', {}, { choices: { band2Kind: 'highShelf' } }),
    anInsert('compressor', { threshold1Db: 0 }),
    anInsert('gate', { rangeDb: 0 }),
    anInsert('limiter', { ceiling1Db: -1 }),
    anInsert('width', { width: 1 }),
    anInsert('transient', {}),
    ...(['echo', 'reverb', 'resonator', 'crush', 'compressor'] as const).map((kind) => anInsert(kind, { mix: 0, threshold1Db: -60 })),
    anInsert('room', { mix: 0 }, { audio: IMPULSE }),
    anInsert('room', {}),
  ]
  for (const one of off) {
    const values = Object.fromEntries(Object.entries(one.values).filter(([name]) => name in effects[one.kind]))
    expect([one.kind, throughEffects(sound, { inserts: [{ ...one, values }], frames: 5000, impulses })]).toEqual([one.kind, plain])
  }
})

test('once its tail is over an effect is as it was before it ever sounded, and what it keeps is nothing', () => {
  const sound = [noise(700, 7), noise(700, 8)]
  for (const kind of effectKinds) {
    const insert = anyInsert(kind, 4)
    const { kit, audio } = kitThrough(sound, { inserts: [insert], frames: 0 })
    const { engine } = createOffline(kit, EFFECT_RATE_HZ, (hash) => audio.get(hash) ?? impulses.get(hash))
    const again = 16 * Math.ceil((2000 + tailOf(insert)) / 16)
    const tap = { left: new Float32Array(again + 3000), right: new Float32Array(again + 3000) }
    const events = [0, again].map((frame) => ({ frame, type: EventType.strike, padSlot: 0, velocity: 127 }))
    renderOffline(engine, toScore(events), again + 3000, 512, { tap })
    expect([kind, tap.left.subarray(again - 200, again).every((sample) => sample === 0)]).toEqual([kind, true])
    expect([kind, tap.left.slice(again)]).toEqual([kind, tap.left.slice(0, 3000)])
    expect(tap.left.some((sample) => sample !== 0)).toBe(true)
  }

  function tailOf(insert: Insert): number {
    const { kit, audio } = kitThrough(sound, { inserts: [insert], frames: 0 })
    const { engine } = createOffline(kit, EFFECT_RATE_HZ, (hash) => audio.get(hash) ?? impulses.get(hash))
    return engine.inserts.units[UnitField.tailFrames]
  }
})

/** Renders a steady tone while a bus has one list of effects after another. */
function edited(chains: readonly (readonly Insert[])[], frames: number, block = 512) {
  const tone = sine(chains.length * frames + 10, 300, 0.3)
  const { kit, audio } = kitThrough([tone, tone], { inserts: chains[0], frames: 0 })
  const { engine, loader } = createOffline(kit, EFFECT_RATE_HZ, (hash) => audio.get(hash))
  const out: number[] = []
  chains.forEach((inserts, i) => {
    if (i > 0) loader.load({ ...kit, buses: [{ ...kit.buses[0], inserts: [...inserts] }] })
    const score = toScore(i === 0 ? [{ frame: 0, type: EventType.strike, padSlot: 0, velocity: 127 }] : [])
    out.push(...renderOffline(engine, score, frames, block)[0])
  })
  return { out, engine, loader, kit }
}

test('effects come, go, change places and numbers without a click, whatever the blocks', () => {
  const echo = anInsert('echo', { seconds: 0.02, feedback: 0.4, mix: 0.5 })
  const soft = { ...echo, values: { ...echo.values, mix: 0.1, lowPassHz: 900, seconds: 0.031 } }
  const tilt = anInsert('equaliser', { band2Db: 6 })
  const steep = { ...tilt, values: { band2Db: -12, band4Db: 9 } }
  const chains = [[], [echo], [echo, tilt], [tilt, echo], [steep, soft], [soft], []]
  const { out, engine } = edited(chains, 4003)
  const slope = (0.3 * 2 * Math.PI * 300) / EFFECT_RATE_HZ
  expect(Math.max(...out.map((sample, i) => (i === 0 ? 0 : Math.abs(sample - out[i - 1]))))).toBeLessThan(2.5 * slope)
  expect(edited(chains, 4003, 61).out).toEqual(out)
  expect([...engine.inserts.count].every((count) => count === 0)).toBe(true)
  // Nothing holds an old program any more, and the last stretch is the tone alone.
  expect([...engine.memory.uses].filter((count) => count < 0)).toEqual([])
  expect(out.slice(-3000)).toEqual(edited([[], [], [], [], [], [], []], 4003).out.slice(-3000))
})

test('places and memory of effects are given back, so that putting in and taking out never fills the engine', () => {
  const { loader, engine, kit } = edited([[]], 600)
  for (let i = 0; i < 600; i++) {
    const inserts = [anInsert('reverb', { size: 0.5 + i / 1000 }), anInsert('echo', { seconds: 0.2 }, { id: `echo-${i}` as never })]
    expect(loader.load({ ...kit, buses: [{ ...kit.buses[0], inserts }] })).toBe(true)
    renderOffline(engine, new Float64Array(0), 1100)
    expect(engine.inserts.count[1]).toBe(2)
  }
  expect(engine.memory.chunks.filter((chunk) => chunk !== undefined).length).toBeLessThan(4)
})

test('what an effect takes away is told, and to whom', () => {
  const tone = sine(20000, 500, 0.5)
  const insert = anInsert('compressor', { threshold1Db: -26, ratio1: 2, kneeDb: 0 })
  const { kit, audio } = kitThrough([tone, tone], { inserts: [anInsert('width'), insert], frames: 0 })
  const { engine, loader } = createOffline(kit, EFFECT_RATE_HZ, (hash) => audio.get(hash))
  renderOffline(engine, toScore([{ frame: 0, type: EventType.strike, padSlot: 0, velocity: 127 }]), 20000)
  const unit = loader.unitOf(insert.id, kit.buses[0].id)!
  expect(engine.memory.meters[UNIT_METERS + unit]).toBeCloseTo((26 - 6.02) / 2, 1)
  expect(loader.unitOf(insert.id, undefined)).toBeUndefined()
})

test('a click through an effect of the master comes out of the stems without it, and of the mix with it', () => {
  const ofMaster = [anInsert('echo', { seconds: 0.001, mix: 1, feedback: 0, lowPassHz: 24000, highPassHz: 10 })]
  const { kit, audio } = kitThrough([click(10, 0.5)], { ofMaster, frames: 0 })
  const { engine, loader } = createOffline(kit, EFFECT_RATE_HZ, (hash) => audio.get(hash))
  const sides = () => ({ left: new Float64Array(100), right: new Float64Array(100) })
  const stem = { slot: loader.busSlotOf(kit.buses[0].id), ...sides() }
  const tap = { left: new Float32Array(100), right: new Float32Array(100), stems: [stem], sum: sides() }
  renderOffline(engine, toScore([{ frame: 0, type: EventType.strike, padSlot: 0, velocity: 127 }]), 100, 512, { tap })
  const first = (samples: Float32Array | Float64Array) => samples.findIndex((sample: number) => Math.abs(sample) > 0.1)
  expect([first(stem.left), first(tap.sum.left), first(tap.left)]).toEqual([0, 0, 48])
})
