import type { Audio } from '../audio/audio'
import {
  act,
  controlNumbers,
  createOffline,
  doneOf,
  DoneField,
  EventField,
  EventType,
  readActs,
  render,
  standingOf,
  toScore,
} from '../engine'
import type { Offline, ScoreEvent } from '../engine'
import { randomRulesKit } from '../engine/testing/rules-kits'
import { performanceKind, responseTo } from '../kit'
import type { AudioHash, Kit, KitId, Performance } from '../kit'
import { aTone } from '../kit/builders'
import { aKit, seeded, testIds } from '../kit/testing'
import { actsOf, Remembered, REMEMBERED_MS, renderPerformance, stoodOf } from '.'
import { standAs } from './standing'
import type { Act } from '.'

const RATE = 48000
const BLOCK = 128
/** What was moved before has landed by then. */
const SETTLED = RATE / 2

/** A kit whose rules are drawn by chance, loud enough that much sounds at once, moved by chance, velocity, wheel and pressure. */
function anyKit(seed: number): { kit: Kit; audioOf: (hash: AudioHash) => Audio | undefined } {
  const { kit, audio } = randomRulesKit(seed)
  const responses = [
    responseTo('chance', 'tuneCents', 90),
    responseTo('velocity', 'gainDb', -12),
    responseTo('wheel', 'gainDb', -9),
    responseTo('keyPressure', 'pan', 0.7),
    responseTo('note', 'tuneCents', 1200),
  ]
  const pads = kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, responses } }))
  const mix = (['velocity', 'note', 'turn', 'strikeRate', 'chance', 'keyPressure'] as const).map((from) => ({ ...responseTo(from, 'gainDb', from === 'note' ? 1 : 5), to: [{ scope: 'kit' as const, param: 'gainDb' }] })) // prettier-ignore
  return { kit: { ...kit, pads, responses: mix, values: { gainDb: 32 } }, audioOf: (hash) => audio.get(hash) }
}

/** The same kit with one thing changed, as an edit while playing does. */
const changed = (kit: Kit, i: number): Kit =>
  i % 2 === 0
    ? { ...kit, values: { ...kit.values, gainDb: -(i % 5) } }
    : { ...kit, pads: kit.pads.map((pad, p) => (p === i % kit.pads.length ? { ...pad, own: { ...pad.own, values: { ...pad.own.values, gainDb: -(i % 7) } } } : pad)) } // prettier-ignore

interface Live {
  readonly left: Float32Array
  readonly right: Float32Array
  readonly remembered: Remembered
  /** Frames at which nothing sounded that began before the frame of the key. */
  quietSince(frame: number): number
}

/** Plays at random on an engine as a page does: in blocks, with edits of the kit between, looking now and then how it stands. */
function playedLive({ kit, audioOf }: ReturnType<typeof anyKit>, seed: number, blocks: number): Live {
  const random = seeded(seed)
  const offline = createOffline(kit, RATE, audioOf)
  const { engine, loader } = offline
  const [left, right] = [new Float32Array(blocks * BLOCK), new Float32Array(blocks * BLOCK)]
  const remembered = new Remembered(RATE)
  const oldest: number[] = []
  let standing = kit
  let told = 0
  let edits = 0
  for (let block = 0; block < blocks; block++) {
    const plays = Math.floor(block / 60) % 3 !== 2 // silence now and then
    if (plays && random() < 0.05) loader.load((standing = changed(standing, ++edits)))
    if (plays && random() < 0.4) act(engine, toScore([anyMove(random, engine.frame, kit.pads.length)]).subarray(0, EventField.length))
    const before = standing
    render(engine, left, right, block * BLOCK, BLOCK)
    remembered.add(newActs(offline, told, before), block)
    told = doneOf(engine.memory, DoneField.acts)
    const starts = [...engine.strikes.startFrame].filter((_, i) => engine.strikes.active[i] !== 0)
    oldest.push(Math.min(Infinity, ...starts))
    if (random() < 0.03) remembered.stand(stoodOf(standingOf(engine), loader.padIdOf), block)
  }
  return {
    left,
    right,
    remembered,
    quietSince(frame) {
      const block = oldest.findIndex((start, i) => (i + 1) * BLOCK >= frame && start >= frame)
      return block < 0 ? Infinity : BLOCK * (1 + block)
    },
  }
}

const newActs = ({ engine, loader }: Offline, told: number, kit: Kit): Act[] =>
  actsOf(readActs(engine.memory, told), loader.padIdOf, ({ frame }) => ({ type: 'kit', frame, kit }))

function anyMove(random: () => number, frame: number, pads: number): ScoreEvent {
  const [padSlot, key] = [Math.floor(random() * pads), Math.floor(random() * 4)]
  const draw = random()
  if (draw < 0.7)
    return { frame, type: EventType.strike, padSlot, velocity: 1 + Math.floor(random() * 127), note: Math.floor(random() * 129) - 1, key }
  if (draw < 0.8) return { frame, type: EventType.release, padSlot, key }
  if (draw < 0.97) return { frame, type: EventType.controller, padSlot: 0, note: [1, 4, 64, controlNumbers.pressure, controlNumbers.keyPressure + padSlot][Math.floor(random() * 5)], velocity: random() } // prettier-ignore
  return { frame, type: EventType.stopAll, padSlot: 0 }
}

function kept(
  live: Live,
  stretch: Parameters<Remembered['performanceOf']>[0],
): { performance: Performance; kitOf: (hash: AudioHash) => Kit | undefined } {
  const kits = new Map(live.remembered.kitsOf(stretch).map((kit, i) => [String(i).padStart(64, '0') as AudioHash, kit]))
  const hashOf = (kit: Kit) => [...kits].find(([, other]) => other === kit)![0]
  const given = { name: 'Slipway', kitId: 'kit-a' as KitId, hashOf, makeId: testIds(3) }
  // Through its text, as it is kept.
  const read = performanceKind.read(JSON.parse(JSON.stringify(live.remembered.performanceOf(stretch, given))))
  if (!read.ok) throw new Error(read.message)
  expect(performanceKind.fault(read.value)).toBeUndefined()
  return { performance: read.value, kitOf: (hash) => kits.get(hash) }
}

test.each([1, 2, 5, 7])(
  'a passage of random playing on a random kit sounds again bit for bit, from when nothing from before sounds (%i)',
  (seed) => {
    const rig = anyKit(seed)
    const live = playedLive(rig, seed + 100, 1800)
    const random = seeded(seed)
    const frames = live.left.length
    let compared = 0
    for (let i = 0; i < 4; i++) {
      const fromFrame = Math.floor(random() * frames * 0.7)
      const stretch = { fromFrame, toFrame: Math.min(frames, fromFrame + 40000 + Math.floor(random() * 60000)), fromMs: 0 }
      if (live.remembered.kitsOf(stretch).length === 0) continue // before it was known how the engine stood
      const { performance, kitOf } = kept(live, stretch)
      if (performance.isUnsteady) continue // it says so
      const again = renderPerformance(performance, { kitOf, audioOf: rig.audioOf })
      const quiet = Math.max(fromFrame, performance.originFrame + SETTLED, live.quietSince(performance.originFrame))
      for (const [side, was] of [live.left, live.right].entries()) {
        const now = again.channels[side].subarray(quiet - fromFrame, stretch.toFrame - fromFrame)
        const then = was.subarray(quiet, stretch.toFrame)
        expect(now.length).toBeGreaterThanOrEqual(then.length)
        const differs = then.findIndex((sample, at) => !Object.is(sample, now[at]) && sample !== now[at])
        expect([differs, differs < 0 ? 0 : then[differs], differs < 0 ? 0 : now[differs]]).toEqual([-1, 0, 0])
        compared += then.filter((sample) => sample !== 0).length
      }
    }
    expect(compared).toBeGreaterThan(1000)
  },
)

test('the pad that was struck last is known by its name, wherever it stands; before the first strike none is', () => {
  const rig = aKit([{ bands: [[aTone(100, 1)]] }, { bands: [[aTone(100, 1)]] }])
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash))
  expect(stoodOf(standingOf(engine), loader.padIdOf)).toMatchObject({ pads: [], controls: [] })
  act(engine, toScore([{ frame: 0, type: EventType.strike, padSlot: 1, velocity: 100 }]).subarray(0, EventField.length))
  render(engine, new Float32Array(BLOCK), new Float32Array(BLOCK), 0, BLOCK)
  const stood = stoodOf(standingOf(engine), loader.padIdOf)
  expect(stood.latestPad).toBe(rig.kit.pads[1].id)
  const performance = { originFrame: 0, standing: stood } as unknown as Performance
  const other = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash))
  const slots = new Map(rig.kit.pads.map(({ id }, i) => [id, 7 - i]))
  const stands = (standing: Performance) => stoodOf(standAs(standingOf(other.engine), standing, (id) => slots.get(id)), (slot) => [...slots].find(([, one]) => one === slot)?.[0]) // prettier-ignore
  expect(stands(performance).latestPad).toBe(rig.kit.pads[1].id)
  expect(stands({ ...performance, standing: { pads: [], controls: [] } }).latestPad).toBeUndefined()
})

test('passages end where nobody strikes for four seconds, and are remembered for ten minutes', () => {
  const remembered = new Remembered(RATE)
  const strike = (second: number, padId: string): Act => ({
    type: 'strike',
    frame: second * RATE,
    padId: padId as never,
    velocity: 90,
    key: 1,
  })
  remembered.stand({ frame: 16, isSteady: true, pads: [], controls: [] }, 0)
  const playAt = (second: number, padId: string) => remembered.add([strike(second, padId)], second * 1000)
  for (const second of [1, 2, 5.9]) playAt(second, 'pad-a')
  playAt(10, 'pad-b') // 4.1 s after the last one
  playAt(11, 'pad-a')
  const spans = (nowMs: number) => remembered.passages(nowMs).map(({ fromFrame, toFrame, strikes, padIds }) => [fromFrame / RATE, Math.round(toFrame / RATE), strikes, padIds.join()]) // prettier-ignore
  expect(spans(12_000)).toEqual([[1, 6, 3, 'pad-a'], [10, 11, 2, 'pad-b,pad-a']]) // prettier-ignore
  expect(spans(REMEMBERED_MS + 6000)).toEqual([[10, 11, 2, 'pad-b,pad-a']])
  expect(spans(REMEMBERED_MS + 12_000)).toEqual([])
})

test('what goes on while it is held is remembered until it is let go, with what led it, and sounds again bit for bit', () => {
  const { kit, audio } = aKit([{ own: { mode: 'hold', maxStrikes: 16, values: { rollSeconds: 0.05 }, responses: [responseTo('keyPressure', 'rollSeconds', -0.03), responseTo('wheel', 'startSeconds', 0.01), responseTo('chance', 'startSeconds', 0.004)] }, bands: [[aTone(3000, 0.2), aTone(2500, 0.3)]] }]) // prettier-ignore
  const audioOf = (hash: AudioHash) => audio.get(hash)
  const offline = createOffline(kit, RATE, audioOf)
  const { engine, loader } = offline
  const [left, right] = [new Float32Array(8 * RATE), new Float32Array(8 * RATE)]
  const remembered = new Remembered(RATE)
  const padSlot = loader.slotOf(kit.pads[0].id)
  const move = (note: number, velocity: number) => ({ type: EventType.controller, padSlot: 0, note, velocity })
  const moves = new Map<number, Omit<ScoreEvent, 'frame'>>([
    [375, { type: EventType.strike, padSlot, velocity: 100, note: 60, key: 4 }],
    [500, move(controlNumbers.keyPressure + padSlot, 0.8)],
    [560, move(controlNumbers.wheel, 90)],
    [2600, { type: EventType.release, padSlot, key: 4 }],
  ])
  let told = 0
  for (let at = 0; at < left.length; at += BLOCK) {
    const given = moves.get(at / BLOCK)
    if (given) act(engine, toScore([{ ...given, frame: engine.frame }]).subarray(0, EventField.length))
    render(engine, left, right, at, BLOCK)
    remembered.add(newActs(offline, told, kit), at)
    told = doneOf(engine.memory, DoneField.acts)
    if (at === 10 * BLOCK) remembered.stand(stoodOf(standingOf(engine), loader.padIdOf), at)
  }
  const [passage] = remembered.passages(8000)
  expect([passage.fromFrame, passage.toFrame - 1, passage.strikes]).toEqual([375 * BLOCK, 2600 * BLOCK, 1])
  const { performance, kitOf } = kept({ left, right, remembered, quietSince: () => 0 }, passage)
  expect(performance.events.map(({ type }) => type)).toEqual(['strike', 'press', 'control', 'letGo'])
  const again = renderPerformance(performance, { kitOf, audioOf })
  const from = passage.fromFrame
  expect(again.channels[0].subarray(0, 280_000)).toEqual(left.subarray(from, from + 280_000))
  expect(left.subarray(from, from + 280_000).some((sample) => sample !== 0)).toBe(true)
})

test('ten minutes of playing go on being remembered in bounded room, each passage with the kit and the standing that it began with', () => {
  const remembered = new Remembered(RATE)
  const kits = Array.from({ length: 40 }, (_, i) => ({ name: `kit ${i}` }) as unknown as Kit)
  for (let second = 0; second < 3600; second += 2) {
    if (second % 90 === 0) remembered.add([{ type: 'kit', frame: second * RATE, kit: kits[second / 90] }], second * 1000)
    if (second % 10 === 0) remembered.stand({ frame: second * RATE, isSteady: true, pads: [], controls: [] }, second * 1000)
    if (second % 60 < 50) remembered.add([{ type: 'strike', frame: second * RATE + 100, padId: 'pad-a' as never, velocity: 90, key: 1 }], second * 1000) // prettier-ignore
  }
  const passages = remembered.passages(3_600_000)
  expect(passages).toHaveLength(10)
  for (const passage of passages) {
    const second = Math.floor(passage.fromFrame / RATE)
    expect(remembered.kitsOf(passage)[0]).toBe(kits[Math.floor((second - 1) / 90)])
    const made = remembered.performanceOf(passage, { name: '', kitId: 'kit-a' as KitId, hashOf: () => '0'.repeat(64) as AudioHash, makeId: testIds(1) })! // prettier-ignore
    expect(passage.fromFrame - made.originFrame).toBeLessThanOrEqual(10.1 * RATE)
    expect(made.originFrame + made.fromFrame).toBe(passage.fromFrame)
  }
  expect((remembered as unknown as { told: unknown[] }).told.length).toBeLessThan(330)
})
