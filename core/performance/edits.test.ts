import { midiOfPerformance, readMidiFile } from '../groove/midi'
import { createKit, createPad, performanceKind } from '../kit'
import type { AudioHash, EventId, Kit, KitId, PadId, Performance, PerformanceId, PlayedEvent } from '../kit'
import { seeded, testIds } from '../kit/testing'
import {
  answering,
  drawnToGrid,
  grooveOfPerformance,
  isHeard,
  movedBy,
  offGrid,
  onOtherPad,
  strikesOf,
  withoutStrikes,
  withStrikes,
} from '.'

const RATE = 48000
const pads = ['pad-keel', 'pad-oar', 'pad-chain'] as PadId[]

/** Strikes at random on three pads, most of them let go of, a wheel moved between. */
function aPerformance(seed: number, count = 40): Performance {
  const random = seeded(seed)
  const events: PlayedEvent[] = []
  let frame = 0
  let id = 0
  const next = () => `event-${id++}` as EventId
  for (let i = 0; i < count; i++) {
    frame += Math.floor(random() * 20000)
    const padId = pads[Math.floor(random() * 3)]
    const key = Math.floor(random() * 3)
    if (random() < 0.2)
      events.push({ type: 'control', id: next(), frame, control: [1, 128, 129][i % 3], value: i % 3 === 0 ? i : random() })
    events.push({ type: 'strike', id: next(), frame, padId, velocity: 1 + Math.floor(random() * 127), key })
    if (random() < 0.7) events.push({ type: 'letGo', id: next(), frame: frame + Math.floor(random() * 9000), padId, key })
  }
  events.sort((a, b) => a.frame - b.frame)
  return {
    format: 'heliaster-performance', version: 1, id: 'performance-a' as PerformanceId, name: 'Slipway', kitId: 'kit-a' as KitId, playedAt: 0,
    sampleRateHz: RATE, originFrame: 1600, fromFrame: 30000, toFrame: frame + 10, tempoBpm: 97, standing: { pads: [], controls: [] },
    segments: [{ frame: 0, kit: '0'.repeat(64) as AudioHash }], events,
  } // prettier-ignore
}

const seeds = Array.from({ length: 60 }, (_, i) => i + 1)
const lengths = (performance: Performance) =>
  new Map(strikesOf(performance).map(({ strike, letGo }) => [strike.id, letGo && letGo.frame - strike.frame]))
const frames = (performance: Performance) => new Map(performance.events.map((event) => [event.id, event.frame]))

test('drawn to a grid each strike that is heard goes its share of the way to the nearest step, held as long, and nothing else moves', () => {
  for (const seed of seeds) {
    const random = seeded(seed)
    const before = aPerformance(seed)
    const grid = { stepsPerBeat: 1 + Math.floor(random() * 12), share: random() }
    const after = { ...before, ...drawnToGrid(before, grid) }
    expect(performanceKind.fault(after)).toBeUndefined()
    const now = frames(after)
    const step = (60 / before.tempoBpm / grid.stepsPerBeat) * RATE
    const heard = before.events.filter(
      (event) => event.type === 'strike' && event.frame >= before.fromFrame && event.frame < before.toFrame,
    )
    for (const event of before.events) {
      if (event.type === 'letGo') continue
      if (!heard.includes(event)) expect(now.get(event.id)).toBe(event.frame)
      else {
        const from = event.frame - heard[0].frame
        const nearest = step * Math.round(from / step)
        expect(Math.abs(now.get(event.id)! - heard[0].frame - (from + grid.share * (nearest - from)))).toBeLessThanOrEqual(0.5)
      }
    }
    expect(offGrid({ ...before, ...drawnToGrid(before, { ...grid, share: 1 }) }, grid.stepsPerBeat).mostMs).toBeLessThan(0.02)
  }
})

test('a strike that is heard is heard wherever it is moved: the edges go along, and only as far', () => {
  let further = 0
  for (const seed of seeds) {
    const random = seeded(seed)
    const whole = aPerformance(seed)
    const before = { ...whole, fromFrame: 30000 + Math.floor(random() * 200000), toFrame: whole.toFrame - Math.floor(random() * 100000) }
    const heardOf = (performance: Performance) => strikesOf(performance).filter(({ strike }) => isHeard(performance, strike)).map(({ strike }) => strike.id) // prettier-ignore
    const ids = new Set(heardOf(before).filter(() => random() < 0.3))
    for (const fields of [
      drawnToGrid(before, { stepsPerBeat: 1, share: 1 }),
      movedBy(before, ids, Math.floor(400000 * (random() - 0.5))),
    ]) {
      const after = { ...before, ...fields }
      expect(heardOf(after)).toEqual(expect.arrayContaining(heardOf(before)))
      expect(after.fromFrame).toBeLessThanOrEqual(before.fromFrame)
      expect(after.toFrame).toBeGreaterThanOrEqual(before.toFrame)
      if (after.toFrame > before.toFrame) expect(after.events.some(({ frame }) => frame === after.toFrame - 1)).toBe(true)
      if (after.fromFrame < before.fromFrame) expect(after.events.some(({ frame }) => frame === after.fromFrame)).toBe(true)
      if (after.toFrame > before.toFrame || after.fromFrame < before.fromFrame) further++
    }
  }
  expect(further).toBeGreaterThan(20)
})

test('strikes that are moved are held as long as they were, where each lets go by itself', () => {
  const before = aPerformance(7)
  const chosen = strikesOf(before)
    .filter((held, _i, all) => held.letGo && all.filter(({ letGo }) => letGo === held.letGo).length === 1)
    .slice(3, 9)
  const ids = new Set(chosen.map(({ strike }) => strike.id))
  const after = { ...before, ...movedBy(before, ids, -137) }
  expect([...ids].map((id) => lengths(after).get(id))).toEqual([...ids].map((id) => lengths(before).get(id)))
  expect([...ids].map((id) => frames(after).get(id))).toEqual([...ids].map((id) => frames(before).get(id)! - 137))
  expect({ ...after, ...movedBy(after, ids, 137) }.events).toEqual(before.events)
  expect(movedBy(before, ids, -1e9).events.every(({ frame }) => frame >= 0)).toBe(true)
})

test('whatever is done to the strikes, a performance stays whole, says that it is edited, and leaves all others as they were', () => {
  for (const seed of seeds) {
    const random = seeded(seed)
    const before = aPerformance(seed)
    const ids = new Set(before.events.filter(({ type }) => type === 'strike' && random() < 0.3).map(({ id }) => id))
    const edits = [
      movedBy(before, ids, Math.floor(40000 * (random() - 0.5))),
      withStrikes(before, ids, { velocity: 200 * random() - 20 }),
      withStrikes(before, ids, { cell: { turn: 'turn-a' as never } }),
      onOtherPad(before, pads[0], pads[2], ids),
      withoutStrikes(before, ids),
    ]
    for (const edit of edits) {
      const after = { ...before, ...edit }
      expect(performanceKind.fault(after)).toBeUndefined()
      const touched = after.events.filter((event) => !before.events.includes(event) && JSON.stringify(before.events.find(({ id }) => id === event.id)) !== JSON.stringify(event)) // prettier-ignore
      expect(touched.length > 0 || after.events.length < before.events.length ? after.edited : true).toBe(true)
      const strikes = touched.filter(({ type }) => type === 'strike')
      expect(strikes.every(({ id }) => ids.has(id))).toBe(true)
    }
    const rest = { ...before, ...withoutStrikes(before, ids) }
    expect(strikesOf(rest).map(({ strike, letGo }) => [strike.id, letGo?.id])).toEqual(
      strikesOf(before).filter(({ strike }) => !ids.has(strike.id)).map(({ strike, letGo }) => [strike.id, letGo?.id]),
    ) // prettier-ignore
  }
})

test('as MIDI every strike that is heard is a note of its pad at its time, as long as it was held, and comes back so from the file', () => {
  let kit: Kit = createKit(testIds(), 'Low Tide')
  kit = { ...kit, pads: pads.map((id, i) => ({ ...createPad(testIds(), {}, 36 + i), id })) }
  for (const seed of seeds) {
    const performance = aPerformance(seed)
    const read = readMidiFile(midiOfPerformance(performance, kit).bytes)
    if (!read.ok) throw new Error(read.message)
    const notes = read.notes.filter((entry) => 'velocity' in entry)
    const heard = strikesOf(performance).filter(({ strike }) => strike.frame >= performance.fromFrame && strike.frame < performance.toFrame)
    const byTime = (a: { ms: number; note: number }, b: { ms: number; note: number }) =>
      Math.round(a.ms) - Math.round(b.ms) || a.note - b.note
    const expected = heard.map(({ strike }) => ({ ms: ((strike.frame - performance.fromFrame) * 1000) / RATE, note: 36 + pads.indexOf(strike.padId), velocity: strike.velocity })) // prettier-ignore
    expect(notes).toHaveLength(expected.length)
    const [got, wanted] = [[...notes].sort(byTime), [...expected].sort(byTime)]
    for (const [i, want] of wanted.entries()) {
      expect([got[i].note, got[i].velocity]).toEqual([want.note, want.velocity])
      expect(Math.abs(got[i].ms - want.ms)).toBeLessThan(0.4) // half a tick at 960 a beat
    }
    const moves = performance.events.filter(
      ({ type, frame }) => type === 'control' && frame >= performance.fromFrame && frame < performance.toFrame,
    )
    expect(read.notes.length - notes.length).toBe(moves.length)
  }
})

test('pads of another kit answer by themselves, by name, by kind and by family, and two hats on the only one there is', () => {
  const aKit = (given: [id: string, name: string, family: string][]): Kit => ({
    ...createKit(testIds(), 'Low Tide'),
    pads: given.map(([id, name, family]) => ({ ...createPad(testIds(), { name, family: family as never }, 36), id: id as PadId })),
  })
  const played = aKit([['a', 'Keel', 'kick'], ['b', 'Tarp', 'snare'], ['c', 'Hiss', 'openHat'], ['d', 'Tick', 'closedHat'], ['e', 'Odd', 'other']]) // prettier-ignore
  const heard = aKit([
    ['x', 'tarp ', 'kick'],
    ['y', 'Thump', 'kick'],
    ['z', 'Chick', 'hat'],
  ])
  expect(Object.fromEntries(answering(played, heard))).toEqual({ a: 'y', b: 'x', c: 'z', d: 'z', e: undefined })
  expect(Object.fromEntries(answering(played, played))).toEqual({ a: 'a', b: 'b', c: 'c', d: 'd', e: 'e' })
})

test('as a groove every strike that is heard comes back on its pad, in its time and as strong, in whole bars of its tempo', () => {
  for (const seed of seeds.slice(0, 20)) {
    const performance = aPerformance(seed)
    const { groove, beyond } = grooveOfPerformance(testIds(), performance)
    expect([groove.name, beyond, groove.lengthSteps % 16]).toEqual(['Slipway', 0, 0])
    const perBeat = (RATE * 60) / performance.tempoBpm
    const heard = performance.events.filter((event) => event.type === 'strike' && isHeard(performance, event))
    const beads = groove.strings.flatMap((string) => string.beads.map(({ step, offset = 0, velocity }) => ({ padId: string.padId, beat: (step + offset) / 4, velocity }))) // prettier-ignore
    for (const strike of heard) {
      if (strike.type !== 'strike') continue
      const beat = (strike.frame - performance.fromFrame) / perBeat
      // Two strikes of a pad within a fiftieth of a step are one.
      expect(beads.some((bead) => bead.padId === strike.padId && Math.abs(bead.beat - beat) < 0.006)).toBe(true)
    }
    expect(beads.length).toBeLessThanOrEqual(heard.length)
  }
  const long = { ...aPerformance(3), fromFrame: 0, toFrame: 400 * RATE, events: [0, 300].map((seconds, i) => ({ type: 'strike' as const, id: `e${i}` as EventId, frame: seconds * RATE, padId: pads[0], velocity: 90, key: 0 })) } // prettier-ignore
  expect(grooveOfPerformance(testIds(), long).beyond).toBe(1)
})
