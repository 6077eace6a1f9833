import { EventType } from '../engine'
import { aKit, anImpulse, testIds } from '../kit/builders'
import { createGroove, grooveSeconds, grooveStrikes, withBead } from './groove'
import { notesSchema, scoreOfNotes } from './notes'

test('steps fall on the tempo, and swing is where the second of a pair stands: half straight, two thirds triplet', () => {
  const padId = 'pad-1' as never
  let groove = createGroove(testIds(), 'g')
  for (const step of [4, 0, 1]) groove = withBead(groove, padId, step, 90)
  const seconds = (swing: number) => grooveStrikes({ ...groove, swing }, 120).map((strike) => Number(strike.seconds.toFixed(6)))
  expect(seconds(0.5)).toEqual([0, 0.125, 0.5])
  expect(seconds(2 / 3)[1]).toBeCloseTo((0.25 * 2) / 3, 6)
  expect(grooveSeconds(groove, 120)).toBe(2)
})

test('a bead is put, changed and taken away; those beyond the length are silent and kept', () => {
  const padId = 'pad-1' as never
  let groove = withBead(withBead(createGroove(testIds(), 'g'), padId, 15, 90), padId, 15, 40)
  expect(groove.strings[0].beads).toEqual([{ id: 'pad-1.15', step: 15, velocity: 40 }])
  expect(grooveStrikes({ ...groove, lengthSteps: 8 }, 100)).toEqual([])
  groove = withBead(groove, padId, 15, 0)
  expect(groove.strings[0].beads).toEqual([])
})

test('notes strike every pad that answers them, let go after their length, velocity 0 strikes nothing, and controllers move', () => {
  const { kit } = aKit([{ bands: [[anImpulse()]] }, { bands: [[anImpulse()]] }])
  kit.pads[1] = { ...kit.pads[1], notes: [36, 40] }
  const notes = notesSchema.parse([{ ms: 10, note: 36, velocity: 100, lengthMs: 5 }, { ms: 20, note: 40, velocity: 0 }, { ms: 0, controller: 1, value: 3 }]) // prettier-ignore
  const events = scoreOfNotes(kit, notes, 48000, (padId) => kit.pads.findIndex((pad) => pad.id === padId))
  expect(events.map(({ frame, padSlot, velocity }) => [frame, padSlot, velocity])).toEqual([[480, 0, 100], [720, 0, undefined], [480, 1, 100], [720, 1, undefined], [0, 0, 3]]) // prettier-ignore
  expect(events[4]).toMatchObject({ type: EventType.controller, note: 1 })
  expect(notesSchema.safeParse([{ ms: -1, note: 200, velocity: 1 }]).success).toBe(false)
})
