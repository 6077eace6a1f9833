import { seeded, testIds } from '../kit/builders'
import { stepBeat, timedBeads } from '../kit/groove-time'
import type { Groove } from '../kit/grooves'
import type { PadId } from '../kit/ids'
import { createGroove } from './groove'
import { grooveOfStrikes } from './of-strikes'
import { nearestStep, withTake } from './take'
import { stringOf } from './beads'
import { cleared, doubledLength, withDivision, withLength, withOwnTiming } from './timing'

const [oar, hull] = ['oar', 'hull'] as PadId[]
const empty = createGroove(testIds(), 'g')
const beatsOf = (groove: Groove, padId: PadId) => timedBeads(groove, stringOf(groove, padId)).map(({ beat }) => beat)

test('as played, every strike comes back where it was, in every lap, at any swing and division', () => {
  const random = seeded(11)
  for (let i = 0; i < 200; i++) {
    const groove: Groove = { ...empty, stepsPerBeat: 1 + Math.floor(random() * 6), lengthSteps: 6 + Math.floor(random() * 20), swing: 0.5 + random() / 4 } // prettier-ignore
    const around = groove.lengthSteps / groove.stepsPerBeat
    const beat = random() * around * 3
    const taken = withTake(groove, [{ padId: oar, beat, velocity: 77 }], { share: 0, isInstead: false })
    const [back] = beatsOf(taken, oar)
    const off = Math.abs((((back - beat) % around) + around * 1.5) % around - around / 2) // prettier-ignore
    // Between steps that swing far apart there is a stretch that half a step does not reach.
    const gap = ((groove.swing - 0.5) * 2) / groove.stepsPerBeat / 2
    expect(off).toBeLessThanOrEqual(gap + 1e-4)
  }
})

test('drawn to the grid a strike goes a share of its way to the step that is nearest as it swings', () => {
  const groove: Groove = { ...empty, swing: 0.6 }
  const at = stepBeat(groove, {}, 3) + 0.05
  const beat = (share: number) => beatsOf(withTake(groove, [{ padId: oar, beat: at, velocity: 90 }], { share, isInstead: false }), oar)[0]
  expect(beat(1)).toBeCloseTo(at - 0.05, 6)
  expect(beat(0.5)).toBeCloseTo(at - 0.025, 4)
  expect(nearestStep(groove, stringOf(groove, oar), 3.99)).toMatchObject({ step: 0 })
})

test('over joins what is there, instead begins the strings anew that are struck, and no other', () => {
  const before = withTake(empty, [0, 1, 2].flatMap((beat) => [{ padId: oar, beat, velocity: 50 }, { padId: hull, beat, velocity: 50 }]), { share: 1, isInstead: false }) // prettier-ignore
  const strikes = [{ padId: oar, beat: 1, velocity: 99 }, { padId: oar, beat: 3, velocity: 99 }] // prettier-ignore
  const over = withTake(before, strikes, { share: 1, isInstead: false })
  expect(stringOf(over, oar).beads.map(({ step, velocity }) => [step, velocity])).toEqual([[0, 50], [4, 99], [8, 50], [12, 99]]) // prettier-ignore
  const instead = withTake(before, strikes, { share: 1, isInstead: true })
  expect(beatsOf(instead, oar)).toEqual([1, 3])
  expect(beatsOf(instead, hull)).toEqual([0, 1, 2])
})

test('two strikes of one step, a little apart, are two beads; on the same place the later one counts', () => {
  const strikes = [{ padId: oar, beat: 1, velocity: 40 }, { padId: oar, beat: 1.03, velocity: 90 }, { padId: oar, beat: 5, velocity: 60 }] // prettier-ignore
  const taken = withTake(empty, strikes, { share: 0, isInstead: false })
  expect(stringOf(taken, oar).beads.map(({ velocity }) => velocity)).toEqual([60, 90])
  expect(new Set(stringOf(taken, oar).beads.map(({ id }) => id)).size).toBe(2)
})

test('strikes make a groove of whole bars', () => {
  const groove = grooveOfStrikes(testIds(), [0, 1.5, 8.2].map((beat) => ({ padId: oar, beat, velocity: 90 })), { name: 'Table', beats: 9 }) // prettier-ignore
  expect(groove.lengthSteps).toBe(48)
  expect(beatsOf(groove, oar).map((beat) => Number(beat.toFixed(3)))).toEqual([0, 1.5, 8.2])
})

test('another division keeps every bead in its time, a groove as long as it is, and its own strings out of it', () => {
  const taken = withTake(
    empty,
    [0, 0.25, 1.5, 3.75].map((beat) => ({ padId: oar, beat, velocity: 90 })),
    { share: 1, isInstead: false },
  )
  const own = withOwnTiming(withTake(taken, [{ padId: hull, beat: 1, velocity: 90 }], { share: 1, isInstead: false }), hull, { lengthSteps: 12, stepsPerBeat: 3 }) // prettier-ignore
  for (const division of [1, 2, 3, 6, 8, 48]) {
    const changed = withDivision(own, division)
    expect(changed.lengthSteps / division).toBe(4)
    const exact = division >= 8
    beatsOf(changed, oar).forEach((beat, i) => expect(beat).toBeCloseTo([0, 0.25, 1.5, 3.75][i], exact ? 6 : 5))
    expect(beatsOf(changed, hull)).toEqual([1])
  }
  expect(withOwnTiming(own, hull, {}).strings[1]).toEqual({ padId: hull, beads: [{ id: 'hull.4', step: 4, velocity: 90 }] })
  expect(withLength(taken, 5000).lengthSteps).toBe(1024)
})

test('twice as long it comes again in its second half; cleared it has its strings and no bead', () => {
  const taken = withTake(
    empty,
    [0, 3.5].map((beat) => ({ padId: oar, beat, velocity: 90 })),
    { share: 1, isInstead: false },
  )
  expect(beatsOf(doubledLength(taken), oar)).toEqual([0, 3.5, 4, 7.5])
  expect(cleared(taken).strings).toEqual([{ padId: oar, beads: [] }])
})
