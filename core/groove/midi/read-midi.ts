import { parseMidi } from 'midi-file'
import type { MidiData, MidiEvent } from 'midi-file'

import type { Notes, NotesEntry } from '../notes'

export type ReadMidi = { readonly ok: true; readonly notes: Notes } | { readonly ok: false; readonly message: string }

/** Whether bytes begin as those of a MIDI file do. */
export function isMidiFile(bytes: Uint8Array): boolean {
  return bytes.length > 13 && String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd'
}

/**
 * The notes, controllers, bend and pressure of a MIDI file, of all tracks and channels together, in order of time. Tempo
 * changes count from where they stand.
 */
export function readMidiFile(bytes: Uint8Array): ReadMidi {
  const read = parsedMidi(bytes)
  return read.ok ? { ok: true, notes: entriesOf(read.timed, read.data) } : read
}

export interface ParsedMidi {
  readonly ok: true
  readonly data: MidiData
  /** Events of all tracks together, in order of time. */
  readonly timed: readonly TimedMidi[]
}

/** The events of a MIDI file with their ticks; or a sentence about what is wrong with it. */
export function parsedMidi(bytes: Uint8Array): ParsedMidi | { readonly ok: false; readonly message: string } {
  if (!isMidiFile(bytes)) return { ok: false, message: 'This is no MIDI file: it does not begin with MThd.' }
  let data: MidiData
  try {
    data = parseMidi(bytes)
  } catch (error) {
    return {
      ok: false,
      message: `This MIDI file is damaged (${error instanceof Error ? error.message : String(error)}). Write it again where it was made.`,
    }
  }
  if (data.header.format > 2 || data.tracks.length === 0 || data.tracks.length < data.header.numTracks)
    return { ok: false, message: 'This MIDI file is damaged: tracks that it promises are missing. Write it again where it was made.' }
  const timed = data.tracks.flatMap((track, place) => ticksOf(track, place)).sort((a, b) => a.tick - b.tick || a.place - b.place)
  return { ok: true, data, timed }
}

export interface TimedMidi {
  readonly tick: number
  readonly place: number
  readonly event: MidiEvent
}

function ticksOf(track: readonly MidiEvent[], place: number): TimedMidi[] {
  let tick = 0
  return track.map((event) => ({ tick: (tick += event.deltaTime), place, event }))
}

/** 120 beats a minute, until a file says otherwise. */
const USUAL_BEAT_MS = 500

function entriesOf(timed: readonly TimedMidi[], { header }: MidiData): Notes {
  const { ticksPerBeat, framesPerSecond, ticksPerFrame } = header
  const isByTime = framesPerSecond !== undefined && ticksPerFrame !== undefined && ticksPerBeat === undefined
  let msPerTick = isByTime ? 1000 / (framesPerSecond * ticksPerFrame) : USUAL_BEAT_MS / (ticksPerBeat ?? 480)
  let [time, lastTick] = [0, 0]
  const notes: NotesEntry[] = []
  const open = new Map<string, { entry: { ms: number; note: number; velocity: number; lengthMs?: number } }[]>()
  for (const { tick, event } of timed) {
    time += (tick - lastTick) * msPerTick
    lastTick = tick
    const now = Math.round(time * 1e6) / 1e6
    if (event.type === 'setTempo' && !isByTime) msPerTick = event.microsecondsPerBeat / 1000 / (ticksPerBeat ?? 480)
    else if (event.type === 'noteOn' && event.velocity > 0) {
      const entry = { ms: now, note: event.noteNumber, velocity: event.velocity }
      notes.push(entry)
      const key = `${event.channel} ${event.noteNumber}`
      open.set(key, [...(open.get(key) ?? []), { entry }])
    } else if (event.type === 'noteOn' || event.type === 'noteOff') {
      const held = open.get(`${event.channel} ${event.noteNumber}`)?.shift()
      if (held) held.entry.lengthMs = Math.round((now - held.entry.ms) * 1e6) / 1e6
    } else notes.push(...movesOfEvent(event, now))
  }
  return notes
}

function movesOfEvent(event: MidiEvent, ms: number): NotesEntry[] {
  switch (event.type) {
    case 'controller':
      return [{ ms, controller: event.controllerType, value: event.value }]
    case 'pitchBend':
      return [{ ms, bend: event.value }]
    case 'channelAftertouch':
      return [{ ms, pressure: event.amount }]
    case 'noteAftertouch':
      return [{ ms, note: event.noteNumber, pressure: event.amount }]
    default:
      return []
  }
}
