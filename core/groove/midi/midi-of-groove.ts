import { writeMidi } from 'midi-file'
import type { MidiEvent } from 'midi-file'

import type { GrooveId, PadId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { notesOfPads } from '../../kit/resolve'
import { unrolled } from '../unroll'

const TICKS_PER_BEAT = 960
const DRUMS = 9
const NOTE_TICKS = TICKS_PER_BEAT / 8

export interface WrittenGroove {
  readonly bytes: Uint8Array<ArrayBuffer>
  /** Pads that no note strikes: their strikes are not in the file. */
  readonly without: readonly PadId[]
}

/**
 * A groove, or a kit's song, of so many beats as a MIDI file of one track in the kit's tempo: every strike as it sounds, with swing,
 * timing, chance, laps and repeats.
 */
export function midiOfGroove(kit: Kit, what: GrooveId | 'song', beats: number, name: string): WrittenGroove {
  const notes = notesOfPads(kit)
  const without = new Set<PadId>()
  const timed: { readonly tick: number; readonly event: MidiEvent }[] = []
  const strikes = unrolled(kit, what, beats)
  strikes.forEach(({ beat, padId, velocity }, i) => {
    const noteNumber = notes.get(padId)?.[0]
    if (noteNumber === undefined) return void without.add(padId)
    const tick = Math.max(0, Math.round(beat * TICKS_PER_BEAT))
    const next = strikes.find((other, place) => place > i && other.padId === padId && other.beat > beat)
    const end = Math.min(tick + NOTE_TICKS, next ? Math.max(tick + 1, Math.round(next.beat * TICKS_PER_BEAT)) : Infinity)
    timed.push({ tick, event: { type: 'noteOn', deltaTime: 0, channel: DRUMS, noteNumber, velocity } })
    timed.push({ tick: end, event: { type: 'noteOff', deltaTime: 0, channel: DRUMS, noteNumber, velocity: 0 } })
  })
  const rank = (type: string) => (type === 'noteOff' ? 0 : 1)
  timed.sort((a, b) => a.tick - b.tick || rank(a.event.type) - rank(b.event.type))
  let last = 0
  const events = timed.map(({ tick, event }) => {
    const deltaTime = tick - last
    last = tick
    return { ...event, deltaTime }
  })
  const track: MidiEvent[] = [
    { type: 'trackName', deltaTime: 0, text: name },
    { type: 'setTempo', deltaTime: 0, microsecondsPerBeat: Math.round(60e6 / kit.tempoBpm) },
    ...events,
    { type: 'endOfTrack', deltaTime: Math.max(0, Math.round(beats * TICKS_PER_BEAT) - last) },
  ]
  return { bytes: Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: TICKS_PER_BEAT }, tracks: [track] })), without: [...without] }
} // prettier-ignore
