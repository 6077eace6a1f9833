import { writeMidi } from 'midi-file'
import type { MidiEvent } from 'midi-file'

import { aKit, anImpulse, seeded, testIds } from '../../kit/builders'
import type { Kit } from '../../kit/kit'
import { randomGroove } from '../testing/random-groove'
import { unrolled } from '../unroll'
import { grooveOfMidi } from './groove-of-midi'
import { midiOfGroove } from './midi-of-groove'

const { kit } = aKit([['kick', 36], ['snare', 38], ['closedHat', 42]].map(([family]) => ({ own: { family: family as never }, bands: [[anImpulse(40)]] }))) // prettier-ignore

/** A file by another writer: notes at beats, at any ticks to a beat. */
function fileOf(
  notes: readonly [beat: number, note: number, velocity: number][],
  ticksPerBeat = 96,
  more: readonly MidiEvent[] = [],
): Uint8Array {
  const timed = notes.flatMap(([beat, noteNumber, velocity]) => [
    { tick: Math.round(beat * ticksPerBeat), event: { type: 'noteOn', channel: 0, noteNumber, velocity } },
    { tick: Math.round(beat * ticksPerBeat) + 5, event: { type: 'noteOff', channel: 0, noteNumber, velocity: 0 } },
  ]).sort((a, b) => a.tick - b.tick) // prettier-ignore
  let last = 0
  const events = timed.map(({ tick, event }) => {
    const deltaTime = tick - last
    last = tick
    return { ...event, deltaTime } as MidiEvent
  })
  return Uint8Array.from(writeMidi({ header: { format: 1, numTracks: 1, ticksPerBeat }, tracks: [[...more, ...events, { type: 'endOfTrack', deltaTime: 0 }]] })) // prettier-ignore
}

const strikesOf = (of: Kit, groove: Kit['grooves'][number], beats: number) =>
  unrolled({ ...of, grooves: [groove] }, groove.id, beats).map(({ beat, padId, velocity }) => [Math.max(0, Math.round(beat * 1000)), padId, velocity]).sort() // prettier-ignore

test('grooves written as MIDI come back as they sounded, with swing, chance, laps and repeats', () => {
  for (let seed = 2; seed < 20; seed++) {
    const groove = { ...randomGroove(seed, kit.pads.map(({ id }) => id)), lengthSteps: 16, stepsPerBeat: 4 } // prettier-ignore
    const whole: Kit = { ...kit, seed, tempoBpm: 101, grooves: [groove] }
    const { bytes, without } = midiOfGroove(whole, groove.id, 16, 'Ebb')
    expect(without).toEqual([])
    const read = grooveOfMidi(testIds(), whole, bytes, 'Ebb')
    if (!read.ok) throw new Error(read.message)
    expect(read.read.tempoBpm).toBeCloseTo(101, 1)
    expect(read.read.groove.lengthSteps / read.read.groove.stepsPerBeat).toBeGreaterThanOrEqual(4)
    const came = strikesOf(whole, read.read.groove, read.read.groove.lengthSteps / read.read.groove.stepsPerBeat)
    const went = strikesOf(whole, groove, 16)
    // Strikes of a pad within a fiftieth of a step are one bead.
    expect(came.length).toBeGreaterThanOrEqual(went.length * 0.9)
    const isIn = (of: typeof went, [beat, padId, velocity]: (typeof went)[number]) => of.some((one) => Math.abs(Number(one[0]) - Number(beat)) <= 6 && one[1] === padId && one[2] === velocity) // prettier-ignore
    expect([seed, came.filter((one) => !isIn(went, one))]).toEqual([seed, []])
  }
})

test('any writer’s notes go to pads by note, then by the family that the trade plays there; what nobody answers is named', () => {
  const [kick, snare, hat] = kit.pads
  const plain = {
    ...kit,
    pads: [
      { ...kick, notes: [60] },
      { ...snare, notes: [] },
      { ...hat, notes: [] },
    ],
  }
  const read = grooveOfMidi(testIds(), plain, fileOf([[0, 36, 100], [0.5, 60, 90], [1, 40, 80], [2, 46, 70], [3, 81, 60]]), 'In') // prettier-ignore
  if (!read.ok) throw new Error(read.message)
  const by = (padId: string) => read.read.groove.strings.find((string) => string.padId === padId)!.beads.map(({ step, velocity }) => [step, velocity]) // prettier-ignore
  const division = read.read.groove.stepsPerBeat
  expect([by(kick.id), by(snare.id), by(hat.id)]).toEqual([[[0, 100], [0.5 * division, 90]], [[division, 80]], [[2 * division, 70]]]) // prettier-ignore
  expect(read.read.without).toEqual([{ note: 81, words: 'open triangle' }])
})

test('the steps are the coarsest that fit; triplets are three to a beat, a human hand keeps its timing', () => {
  const divisionOf = (beats: readonly number[], ticks?: number) => {
    const read = grooveOfMidi(testIds(), kit, fileOf(beats.map((beat) => [beat, 36, 100]), ticks), 'In') // prettier-ignore
    if (!read.ok) throw new Error(read.message)
    return read.read.groove
  }
  expect(divisionOf([0, 0.25, 0.5, 1.75]).stepsPerBeat).toBe(4)
  expect(divisionOf([0, 1 / 3, 2 / 3, 1, 2]).stepsPerBeat).toBe(3)
  expect(divisionOf([0, 0.125, 1]).stepsPerBeat).toBe(8)
  const random = seeded(8)
  const played = Array.from({ length: 32 }, (_, i) => Math.max(0, i / 4 + 0.04 * (random() - 0.5)))
  const human = divisionOf(played, 960)
  expect(human.stepsPerBeat).toBe(4)
  const beats = human.strings[0].beads.map(({ step, offset = 0 }) => (step + offset) / 4)
  played.sort((a, b) => a - b).forEach((beat, i) => expect(beats[i]).toBeCloseTo(beat, 2))
})

test('bars follow the time signature, the tempo is told, and other files are refused in a sentence', () => {
  const more: MidiEvent[] = [
    { type: 'timeSignature', deltaTime: 0, numerator: 6, denominator: 8, metronome: 24, thirtyseconds: 8 },
    { type: 'setTempo', deltaTime: 0, microsecondsPerBeat: 600_000 },
  ]
  const read = grooveOfMidi(testIds(), kit, fileOf([[0, 36, 100], [3.5, 38, 100]], 96, more), 'In') // prettier-ignore
  expect(read.ok && [read.read.groove.lengthSteps / read.read.groove.stepsPerBeat, read.read.tempoBpm]).toEqual([6, 100])
  expect(grooveOfMidi(testIds(), kit, Uint8Array.of(1, 2, 3), 'In')).toEqual({ ok: false, message: 'This is no MIDI file: it does not begin with MThd.' }) // prettier-ignore
  expect(grooveOfMidi(testIds(), kit, fileOf([]), 'In')).toEqual({ ok: false, message: 'This MIDI file has no notes.' })
  expect(grooveOfMidi(testIds(), kit, fileOf([[0, 5, 100]]), 'In')).toMatchObject({ ok: false, message: expect.stringContaining('No pad answers') as string }) // prettier-ignore
})
