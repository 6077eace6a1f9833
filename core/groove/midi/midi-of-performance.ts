import { writeMidi } from 'midi-file'
import type { MidiEvent } from 'midi-file'

import { controlNumbers } from '../../engine'
import { notesOfPads } from '../../kit'
import type { Kit, PadId, Performance, PlayedEvent } from '../../kit'
import { isHeard, strikesOf } from '../../performance'

const TICKS_PER_BEAT = 960
/** How long a note is written that was never let go of. */
const SHORT_BEATS = 1 / 8
const DRUMS = 9

interface Timed {
  readonly tick: number
  readonly event: MidiEvent
}

export interface WrittenMidi {
  readonly bytes: Uint8Array
  /** Pads that no note strikes: their strikes are not in the file. */
  readonly without: readonly PadId[]
}

/**
 * What is heard of a performance as a MIDI file of one track, in its tempo, the first frame that is heard at its beginning.
 * Strikes are notes of their pads, controllers and pressure are written as they were moved.
 */
export function midiOfPerformance(performance: Performance, kit: Kit, only?: ReadonlySet<PadId>): WrittenMidi {
  const { tempoBpm, sampleRateHz, fromFrame, toFrame } = performance
  const tickOf = (frame: number) => Math.round((((frame - fromFrame) / sampleRateHz) * tempoBpm * TICKS_PER_BEAT) / 60)
  const notes = notesOfPads(kit)
  const without = new Set<PadId>()
  const timed: Timed[] = []
  for (const { strike, letGo } of strikesOf(performance)) {
    if (!isHeard(performance, strike) || (only && !only.has(strike.padId))) continue
    const noteNumber = strike.note ?? notes.get(strike.padId)?.[0]
    if (noteNumber === undefined) {
      without.add(strike.padId)
      continue
    }
    const from = tickOf(strike.frame)
    const to = Math.max(from + 1, letGo ? tickOf(Math.min(letGo.frame, toFrame)) : from + SHORT_BEATS * TICKS_PER_BEAT)
    const velocity = Math.min(127, Math.max(1, Math.round(strike.velocity)))
    timed.push({ tick: from, event: { type: 'noteOn', deltaTime: 0, channel: DRUMS, noteNumber, velocity } })
    timed.push({ tick: to, event: { type: 'noteOff', deltaTime: 0, channel: DRUMS, noteNumber, velocity: 0 } })
  }
  for (const event of performance.events) {
    const move = isHeard(performance, event) ? moveOf(event, notes, only) : undefined
    if (move) timed.push({ tick: tickOf(event.frame), event: move })
  }
  return { bytes: Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: TICKS_PER_BEAT }, tracks: [trackOf(performance, timed)] })), without: [...without] } // prettier-ignore
}

function moveOf(event: PlayedEvent, notes: ReadonlyMap<PadId, number[]>, only: ReadonlySet<PadId> | undefined): MidiEvent | undefined {
  const head = { deltaTime: 0, channel: DRUMS }
  if (event.type === 'press') {
    const noteNumber = notes.get(event.padId)?.[0]
    const isLeftOut = noteNumber === undefined || (only && !only.has(event.padId))
    return isLeftOut ? undefined : { ...head, type: 'noteAftertouch', noteNumber, amount: inSteps(127 * event.value, 0, 127) }
  }
  if (event.type !== 'control') return undefined
  const { control, value } = event
  if (control === controlNumbers.bend) return { ...head, type: 'pitchBend', value: inSteps(8192 * value, -8192, 8191) }
  if (control === controlNumbers.pressure) return { ...head, type: 'channelAftertouch', amount: inSteps(127 * value, 0, 127) }
  return control > 127 ? undefined : { ...head, type: 'controller', controllerType: control, value: inSteps(value, 0, 127) }
}

const inSteps = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, Math.round(value)))

/** Notes end before others of the same tick begin, so that one that is struck again sounds again. */
function trackOf({ name, tempoBpm }: Performance, timed: readonly Timed[]): MidiEvent[] {
  const rank = ({ event }: Timed) => (event.type === 'noteOff' ? 0 : event.type === 'noteOn' ? 2 : 1)
  const sorted = [...timed].sort((a, b) => a.tick - b.tick || rank(a) - rank(b))
  let last = 0
  const events = sorted.map(({ tick, event }) => {
    const deltaTime = tick - last
    last = tick
    return { ...event, deltaTime }
  })
  return [
    { type: 'trackName', deltaTime: 0, text: name },
    { type: 'setTempo', deltaTime: 0, microsecondsPerBeat: Math.round(60e6 / tempoBpm) },
    ...events,
    { type: 'endOfTrack', deltaTime: 0 },
  ]
}
