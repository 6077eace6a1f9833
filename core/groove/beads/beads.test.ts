import { seeded } from '../../kit/builders'
import { grooveSchema } from '../../kit/grooves'
import type { Groove } from '../../kit/grooves'
import type { BeadId, PadId } from '../../kit/ids'
import { randomGroove } from '../testing/random-groove'
import { asVelocity, beadById, beadsOf, chosenByRule, chosenWithin, copiedBeads, drawn, louderBy, movedBeads, pasted, ramped, stepsOf, straightBeat, stretched, stringOf, withBeads, withLaterBeads, withNewBead, withoutBeads } from '.' // prettier-ignore

const padIds = ['oar', 'hull', 'rope', 'bell'] as PadId[]
const plain = (steps: readonly number[], more: Partial<Groove> = {}): Groove =>
  [...steps].reduce((groove, step) => withNewBead(groove, padIds[0], step, 100).groove, {
    id: 'g' as never, name: '', lengthSteps: 16, stepsPerBeat: 4, swing: 0.5, strings: [], ...more,
  } as Groove) // prettier-ignore
const idsAt = (groove: Groove, ...steps: number[]) =>
  new Set(beadsOf(groove).filter(({ bead }) => steps.includes(bead.step)).map(({ bead }) => bead.id)) // prettier-ignore
const stepsIn = (groove: Groove, padId = padIds[0]) => stringOf(groove, padId).beads.map(({ step }) => step)

/** Everything that must hold of a groove whatever was done to it. */
function expectWhole(groove: Groove): void {
  expect(grooveSchema.safeParse(groove).error?.issues ?? []).toEqual([])
  const ids = groove.strings.flatMap(({ beads }) => beads.map(({ id }) => id))
  expect(new Set(ids).size).toBe(ids.length)
  for (const { beads } of groove.strings) {
    expect(beads.map(({ step }) => step)).toEqual(beads.map(({ step }) => step).sort((a, b) => a - b))
    for (const { when } of beads) for (const other of [when?.after, when?.unless]) if (other) expect(ids).toContain(other)
  }
}

test('whatever is done to random grooves, they stay grooves: ids once, steps in order, nobody waits for one that is gone', () => {
  let moved = 0
  for (let seed = 1; seed <= 120; seed++) {
    const random = seeded(seed * 7)
    for (let i = 0; i < 5; i++) random()
    const groove = randomGroove(seed, padIds)
    const all = beadsOf(groove)
    const ids = new Set(all.filter(() => random() < 0.4).map(({ bead }) => bead.id))
    const copied = copiedBeads(groove, ids, padIds)
    const results = [
      withoutBeads(groove, ids),
      louderBy(groove, ids, Math.round(random() * 200 - 100)),
      movedBeads(groove, ids, Math.round(random() * 10 - 5), padIds, Math.round(random() * 4 - 2)),
      stretched(groove, ids, random() < 0.5 ? 0.5 : 2).groove,
      pasted(groove, copied, padIds, padIds[Math.floor(random() * 4)], Math.floor(random() * 8)).groove,
      ramped(groove, ids, 1, 127, asVelocity),
    ]
    for (const result of results) expectWhole(result)
    expect(withoutBeads(groove, ids).strings.flatMap(({ beads }) => beads)).toHaveLength(groove.strings.flatMap(({ beads }) => beads).length - ids.size) // prettier-ignore
    // What was not chosen, and stood in nobody's way, is as it was.
    const after = results[2]
    for (const { bead, string } of all) {
      const now = beadById(after, bead.id)
      if (ids.has(bead.id)) expect(now).toBeDefined()
      else if (now) expect([now.string.padId, now.bead.step, now.bead.velocity]).toEqual([string.padId, bead.step, bead.velocity])
      if (ids.has(bead.id) && now && now.bead.step !== bead.step) moved++
    }
  }
  expect(moved).toBeGreaterThan(100)
})

test('chosen beads move as one, as far as all stay within, and what they come to gives way', () => {
  const groove = plain([0, 4, 5, 14])
  expect(stepsIn(movedBeads(groove, idsAt(groove, 4, 14), 3))).toEqual([0, 5, 15])
  expect(stepsIn(movedBeads(groove, idsAt(groove, 4), 1))).toEqual([0, 5, 14])
  expect(stepsIn(movedBeads(groove, idsAt(groove, 0, 4), -3))).toEqual([0, 4, 5, 14])
  const below = movedBeads(groove, idsAt(groove, 0, 5), 1, padIds, 9)
  expect(stepsIn(below)).toEqual([4, 14])
  expect(stepsIn(below, padIds[3])).toEqual([1, 6])
})

test('on another pad a bead asks no more for cells of the one that it left', () => {
  const groove = withBeads(plain([0]), idsAt(plain([0]), 0), () => ({ band: 'b' as never, turn: 't' as never, chance: 0.5, locks: [{ param: 'pan', value: 1, mode: 'set', ray: 'r' as never }, { param: 'gainDb', value: -3, mode: 'add' }] })) // prettier-ignore
  const bead = stringOf(movedBeads(groove, idsAt(groove, 0), 0, padIds, 1), padIds[1]).beads[0]
  expect(bead).toEqual({ id: 'oar.0', step: 0, velocity: 100, chance: 0.5, locks: [{ param: 'gainDb', value: -3, mode: 'add' }] })
})

test('a ramp goes evenly through time, not through beads; random stays within its bounds', () => {
  const groove = plain([0, 1, 8])
  const ramp = ramped(groove, idsAt(groove, 0, 1, 8), 20, 100, asVelocity)
  expect(stringOf(ramp, padIds[0]).beads.map(({ velocity }) => velocity)).toEqual([20, 30, 100])
  const random = drawn(groove, idsAt(groove, 0, 8), 40, 60, seeded(3), asVelocity)
  const [first, second, third] = stringOf(random, padIds[0]).beads.map(({ velocity }) => velocity)
  expect(second).toBe(100)
  for (const velocity of [first, third]) expect(velocity).toBeGreaterThanOrEqual(40)
  for (const velocity of [first, third]) expect(velocity).toBeLessThanOrEqual(60)
})

test('twice as slow and back again is what it was, where all of it stays within; between steps it stands off one', () => {
  const groove = plain([0, 2, 4, 6])
  const slow = stretched(groove, idsAt(groove, 0, 2, 4, 6), 2)
  expect(stepsIn(slow.groove)).toEqual([0, 4, 8, 12])
  expect(stepsIn(stretched(slow.groove, slow.ids, 0.5).groove)).toEqual([0, 2, 4, 6])
  const fast = stretched(plain([0, 1]), idsAt(plain([0, 1]), 0, 1), 0.5).groove
  expect(beadsOf(fast).map((one) => straightBeat(fast, one))).toEqual([0, 0.125])
  const lost = stretched(groove, idsAt(groove, 4, 6), 8)
  expect(stepsIn(lost.groove)).toEqual([0, 2, 4])
  expect(lost.ids.size).toBe(1)
})

test('what is copied comes again in whole beats, on the strings below each other as they were', () => {
  const groove = withNewBead(plain([0, 3, 4]), padIds[1], 1, 60).groove
  const copied = copiedBeads(groove, idsAt(groove, 0, 1, 3), padIds)
  expect(copied.lengthSteps).toBe(4)
  const again = pasted(groove, copied, padIds, padIds[0], 4)
  expect([stepsIn(again.groove), stepsIn(again.groove, padIds[1])]).toEqual([[0, 3, 4, 7], [1, 5]]) // prettier-ignore
  expect(again.ids.size).toBe(3)
  expect(stepsIn(pasted(groove, copied, padIds, padIds[3], 14).groove, padIds[3])).toEqual([14])
})

test('rules choose every nth as beads stand, beats and off-beats as steps do, soft and loud', () => {
  const groove = withBeads(plain([0, 2, 4, 5, 6, 10]), idsAt(plain([0, 2, 4, 5, 6, 10]), 2, 5), () => ({ velocity: 30 }))
  const chosen = (rule: Parameters<typeof chosenByRule>[2]) => beadsOf(groove).filter(({ bead }) => chosenByRule(groove, new Set([padIds[0]]), rule).has(bead.id)).map(({ bead }) => bead.step) // prettier-ignore
  expect(chosen('every2nd')).toEqual([0, 4, 6])
  expect(chosen('every3rd')).toEqual([0, 5])
  expect(chosen('beats')).toEqual([0, 4])
  expect(chosen('offBeats')).toEqual([2, 6, 10])
  expect(chosen('soft')).toEqual([2, 5])
  expect(chosen('loud')).toEqual([0, 4, 6, 10])
  expect(chosenByRule(groove, new Set([padIds[2]]), 'all').size).toBe(0)
  expect([...chosenWithin(groove, new Set(padIds), 0.5, 1.25)]).toEqual(['oar.2', 'oar.4'] as BeadId[])
})

test('a string of its own division has its own number of steps', () => {
  const groove = plain([], { lengthSteps: 12, stepsPerBeat: 4 })
  expect(stepsOf(groove, { stepsPerBeat: 3 })).toBe(9)
  expect(stepsOf(groove, { stepsPerBeat: 5, lengthSteps: 7 })).toBe(7)
  expect(stepsOf(groove, undefined)).toBe(12)
})

test('an edit of what was seen keeps the beads that came meanwhile, and brings back none that it took away', () => {
  const seen = plain([0, 4])
  const later = withNewBead(seen, padIds[1], 2, 70).groove
  const edited = withoutBeads(seen, idsAt(seen, 4))
  const both = withLaterBeads(edited, seen, later)
  expect([stepsIn(both), stepsIn(both, padIds[1])]).toEqual([[0], [2]]) // prettier-ignore
  expect(withLaterBeads(edited, seen, seen)).toBe(edited)
})
