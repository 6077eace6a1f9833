import { writeMidi } from 'midi-file'

import { controlNumbers, EventType } from '../engine'
import { aKit, anImpulse, testIds } from '../kit/builders'
import { lapBeats, timedBeads } from '../kit/groove-time'
import { withBeads } from './beads'
import { createGroove, grooveSeconds, withBead } from './groove'
import { readMidiFile } from './midi/read-midi'
import { notesSchema, scoreOfNotes } from './notes'

test('steps fall on the tempo, and swing is where the second of a pair stands: half straight, two thirds triplet', () => {
  const padId = 'pad-1' as never
  let groove = createGroove(testIds(), 'g')
  for (const step of [4, 0, 1]) groove = withBead(groove, padId, step, 90)
  const beats = (swing: number) => timedBeads({ ...groove, swing }, groove.strings[0]).map(({ beat }) => beat)
  expect(beats(0.5)).toEqual([0, 0.25, 1])
  expect(beats(2 / 3)[1]).toBeCloseTo((0.5 * 2) / 3, 9)
  expect(grooveSeconds(groove, 120)).toBe(2)
})

test('what is set on a bead, and on its string, stays when its velocity changes', () => {
  const padId = 'pad-1' as never
  const one = withBead(createGroove(testIds(), 'g'), padId, 3, 90)
  const own = { ...one, strings: one.strings.map((string) => ({ ...string, stepsPerBeat: 3 })) }
  const set = withBeads(own, new Set([own.strings[0].beads[0].id]), () => ({ chance: 0.5, offset: -0.1 }))
  expect(withBead(set, padId, 3, 40).strings).toEqual([{ padId, stepsPerBeat: 3, beads: [{ id: 'pad-1.3', step: 3, velocity: 40, chance: 0.5, offset: -0.1 }] }]) // prettier-ignore
  expect(withBeads(set, new Set(['pad-1.9' as never]), () => ({ chance: 0.1 }))).toEqual(set)
})

test('a bead is put, changed and taken away; those beyond the length are silent and kept', () => {
  const padId = 'pad-1' as never
  let groove = withBead(withBead(createGroove(testIds(), 'g'), padId, 15, 90), padId, 15, 40)
  expect(groove.strings[0].beads).toEqual([{ id: 'pad-1.15', step: 15, velocity: 40 }])
  expect(timedBeads({ ...groove, lengthSteps: 8 }, groove.strings[0])).toEqual([])
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

test('bend and pressure move their controls, pressure on a note those of the pads that answer it', () => {
  const { kit } = aKit([{ bands: [[anImpulse()]] }, { bands: [[anImpulse()]] }])
  const notes = notesSchema.parse([
    { ms: 0, bend: -8192 },
    { ms: 1, bend: 8191 },
    { ms: 2, pressure: 127 },
    { ms: 3, pressure: 0, note: 37 },
  ])
  const events = scoreOfNotes(kit, notes, 1000, (padId) => kit.pads.findIndex((pad) => pad.id === padId))
  expect(events.map(({ frame, note, velocity }) => [frame, note, velocity])).toEqual([
    [0, controlNumbers.bend, -1],
    [1, controlNumbers.bend, 1],
    [2, controlNumbers.pressure, 1],
    [3, controlNumbers.keyPressure + 1, 0],
  ])
  expect(notesSchema.safeParse([{ ms: 0, bend: 9000 }]).success).toBe(false)
})

test('a MIDI file of several tracks and tempos gives its notes in ms, each with its own end', () => {
  const on = (deltaTime: number, noteNumber: number, velocity = 90) => ({
    deltaTime,
    type: 'noteOn' as const,
    channel: 0,
    noteNumber,
    velocity,
  })
  const end = { deltaTime: 0, meta: true as const, type: 'endOfTrack' as const }
  const tempo = (deltaTime: number, microsecondsPerBeat: number) => ({ deltaTime, meta: true as const, type: 'setTempo' as const, microsecondsPerBeat }) // prettier-ignore
  const tracks = [
    [tempo(0, 500000), tempo(960, 1000000), end],
    [on(480, 40), on(0, 40), on(240, 40, 0), on(720, 40, 0), { deltaTime: 0, type: 'controller' as const, channel: 3, controllerType: 4, value: 7 }, end], // prettier-ignore
    [{ deltaTime: 1200, type: 'channelAftertouch' as const, channel: 0, amount: 5 }, { deltaTime: 0, type: 'noteAftertouch' as const, channel: 0, noteNumber: 40, amount: 6 }, end], // prettier-ignore
  ]
  const read = readMidiFile(Uint8Array.from(writeMidi({ header: { format: 1, numTracks: 3, ticksPerBeat: 480 }, tracks })))
  expect(read.ok && read.notes).toEqual([
    { ms: 500, note: 40, velocity: 90, lengthMs: 250 },
    { ms: 500, note: 40, velocity: 90, lengthMs: 1500 },
    { ms: 1500, pressure: 5 },
    { ms: 1500, note: 40, pressure: 6 },
    { ms: 2000, controller: 4, value: 7 },
  ])
  expect(read.ok && notesSchema.safeParse(read.notes).success).toBe(true)
  expect(readMidiFile(new Uint8Array(40))).toEqual({ ok: false, message: expect.stringContaining('MThd') })
})

test('a string begins as often as it goes round within its groove, and one as long or longer begins once', () => {
  const groove = { ...createGroove(testIds(), 'Ebb'), lengthSteps: 16, stepsPerBeat: 4 }
  expect(lapBeats(groove, {})).toEqual([0])
  expect(lapBeats(groove, { lengthSteps: 6 })).toEqual([0, 1.5, 3])
  expect(lapBeats(groove, { lengthSteps: 8 })).toEqual([0, 2])
  expect(lapBeats(groove, { lengthSteps: 3, stepsPerBeat: 3 })).toEqual([0, 1, 2, 3])
  expect(lapBeats(groove, { lengthSteps: 40 })).toEqual([0])
  expect(lapBeats({ ...groove, lengthSteps: 1024, stepsPerBeat: 1 }, { lengthSteps: 1, stepsPerBeat: 48 })).toHaveLength(256)
})
