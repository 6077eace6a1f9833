import { familyOfNote } from '../../hands/usual-notes'
import { broadFamily } from '../../kit/families'
import type { Family } from '../../kit/families'
import type { GrooveId, MakeId, PadId } from '../../kit/ids'
import { STRAIGHT } from '../../kit/grooves'
import type { Groove } from '../../kit/grooves'
import type { Kit } from '../../kit/kit'
import { padSettings, padsOfNotes } from '../../kit/resolve'
import { withTake } from '../take'
import type { TakenStrike } from '../take'
import { parsedMidi } from './read-midi'
import type { ParsedMidi } from './read-midi'

export interface MidiGroove {
  readonly groove: Groove
  /** Its first tempo, where it says one. */
  readonly tempoBpm?: number
  /** How many strikes came, and from how many notes. */
  readonly strikes: number
  /** Notes that no pad answers, by note or by family, with what the trade calls them. */
  readonly without: readonly { readonly note: number; readonly words?: string }[]
  /** What lies beyond 1024 steps, in strikes. */
  readonly beyond: number
}

export type ReadGroove = { readonly ok: true; readonly read: MidiGroove } | { readonly ok: false; readonly message: string }

const MOST_STEPS = 1024
const MOST_PER_BEAT = 48
/** Divisions that are tried, the usual ones first. */
const DIVISIONS = [4, 3, 2, 6, 8, 12, 16, 24, 32, 48]
/** So many of the notes lie on a grid that fits, and so near, in beats. */
const FITS = 0.98
const NEAR_BEATS = 0.004

/**
 * A MIDI file as a groove: notes go to the pads that answer them, else to the first pad of the family that the trade plays on that
 * note. Its steps are the coarsest grid on which they lie; where they lie on none, of four or three to a beat with what is left as
 * timing. Tempo changes are left out: beats are what counts.
 */
export function grooveOfMidi(makeId: MakeId, kit: Kit, bytes: Uint8Array, name: string): ReadGroove {
  const parsed = parsedMidi(bytes)
  if (!parsed.ok) return parsed
  const notes = notesOf(parsed, kit.tempoBpm)
  if (notes.length === 0) return { ok: false, message: 'This MIDI file has no notes.' }
  const padOf = answers(kit)
  const strikes = notes.flatMap(({ note, beat, velocity }): TakenStrike[] => {
    const padId = padOf(note)
    return padId ? [{ padId, beat, velocity }] : []
  })
  const silent = [...new Set(notes.map(({ note }) => note))].filter((note) => !padOf(note)).sort((a, b) => a - b)
  const without = silent.map((note) => ({ note, words: familyOfNote(note)?.words }))
  if (strikes.length === 0) return { ok: false, message: `No pad answers the notes of this file (${silent.slice(0, 6).join(', ')}): give pads these notes, or families.` } // prettier-ignore
  const stepsPerBeat = divisionFor(strikes.map(({ beat }) => beat))
  const bar = barOf(parsed)
  const last = Math.max(...strikes.map(({ beat }) => beat))
  const bars = Math.max(1, Math.ceil((last + 1e-6) / bar))
  const lengthSteps = Math.min(MOST_STEPS, Math.max(1, Math.round(bars * bar * stepsPerBeat)))
  const within = strikes.filter(({ beat }) => beat * stepsPerBeat < lengthSteps - 0.5)
  const empty: Groove = { id: makeId<GrooveId>('groove'), name, lengthSteps, stepsPerBeat, swing: STRAIGHT, strings: [] }
  const groove = withTake(empty, within, { share: 0, isInstead: false })
  return { ok: true, read: { groove, tempoBpm: tempoOf(parsed), strikes: within.length, without, beyond: strikes.length - within.length } }
}

interface Note {
  readonly beat: number
  readonly note: number
  readonly velocity: number
}

/** Notes that begin, with their beats; a file that counts in pictures of film goes by the tempo that is given. */
function notesOf({ data, timed }: ParsedMidi, tempoBpm: number): Note[] {
  const { ticksPerBeat, framesPerSecond, ticksPerFrame } = data.header
  const perTick = ticksPerBeat ? 1 / ticksPerBeat : tempoBpm / 60 / ((framesPerSecond ?? 25) * (ticksPerFrame ?? 40))
  return timed.flatMap(({ tick, event }) => (event.type === 'noteOn' && event.velocity > 0 ? [{ beat: tick * perTick, note: event.noteNumber, velocity: event.velocity }] : [])) // prettier-ignore
}

function tempoOf({ timed }: ParsedMidi): number | undefined {
  const first = timed.find(({ event }) => event.type === 'setTempo')?.event
  if (first?.type !== 'setTempo') return undefined
  return Math.min(400, Math.max(20, Math.round(60e6 / first.microsecondsPerBeat * 100) / 100)) // prettier-ignore
}

/** A bar in beats, by the first time signature; four where none is said. */
function barOf({ timed }: ParsedMidi): number {
  const first = timed.find(({ event }) => event.type === 'timeSignature')?.event
  return first?.type === 'timeSignature' && first.denominator > 0 ? (first.numerator * 4) / first.denominator : 4
}

/** Which pad a note strikes: one that was given it, else the first of its kind, else of its family, else the one that it strikes anyway. */
function answers(kit: Kit): (note: number) => PadId | undefined {
  const byNote = padsOfNotes(kit)
  const kinds = kit.pads.map((pad) => [pad.id, padSettings(kit, pad).family] as const)
  const ofFamily = (family: Family) =>
    (kinds.find(([, kind]) => kind === family) ??
      kinds.find(([, kind]) => kind !== 'other' && broadFamily(kind) === broadFamily(family)))?.[0]
  return (note) => {
    const given = kit.pads.find(({ notes }) => notes.includes(note))?.id
    const family = familyOfNote(note)?.family
    return given ?? (family && ofFamily(family)) ?? byNote.get(note)?.[0]
  }
}

function divisionFor(beats: readonly number[]): number {
  const share = (division: number) => beats.filter((beat) => Math.abs(beat * division - Math.round(beat * division)) / division < NEAR_BEATS).length / beats.length // prettier-ignore
  const exact = DIVISIONS.filter((division) => division <= MOST_PER_BEAT).find((division) => share(division) >= FITS)
  if (exact !== undefined) return exact
  const away = (division: number) => beats.reduce((sum, beat) => sum + Math.abs(beat * division - Math.round(beat * division)), 0)
  return away(3) < 0.7 * away(4) ? 3 : 4
}
