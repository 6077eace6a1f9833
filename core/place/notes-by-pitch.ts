import type { NameFacts, NamedFile } from './names/types'

/** Fewer notes than this are takes that differ. */
const FEWEST_NOTES = 3
/** Two notes are a semitone apart or more; one note stays within this, semitones. */
const APART = 0.9
const ONE_NOTE = 0.4
/** So many of the files have a pitch that is sure. */
const MOST_PITCHED = 0.9

/**
 * Where names count what is one thing at several notes, the notes are told by measured pitch: files of one number all have
 * one pitch, and different numbers have pitches a semitone apart or more. What only differs as takes do stays takes.
 */
export function notesByPitch(files: readonly NamedFile[], facts: readonly NameFacts[]): NameFacts[] {
  const byDrum = new Map<string, number[]>()
  facts.forEach(({ drum, note }, file) => {
    if (note === undefined) byDrum.set(drum.toLowerCase(), [...(byDrum.get(drum.toLowerCase()) ?? []), file])
  })
  const found = new Map<number, number>()
  for (const own of byDrum.values()) for (const [file, note] of notesOf(own, files, facts)) found.set(file, note)
  return facts.map((fact, file) => {
    const note = found.get(file)
    if (note === undefined) return fact
    const { take: _take, ...rest } = fact
    return { ...rest, note }
  })
}

function notesOf(own: readonly number[], files: readonly NamedFile[], facts: readonly NameFacts[]): Map<number, number> {
  const none = new Map<number, number>()
  const pitched = own.filter((file) => (files[file].pitchHz ?? 0) > 0)
  if (pitched.length < MOST_PITCHED * own.length || own.some((file) => facts[file].take === undefined)) return none
  const takes = new Map<number, number[]>()
  for (const file of pitched) takes.set(facts[file].take!, [...(takes.get(facts[file].take!) ?? []), semitoneOf(files[file].pitchHz!)])
  const notes = [...takes].map(([take, semitones]) => ({ take, middle: middleOf(semitones), reach: reachOf(semitones) }))
  if (notes.length < FEWEST_NOTES || notes.some(({ reach }) => reach > ONE_NOTE)) return none
  const sorted = notes.map(({ middle }) => middle).sort((a, b) => a - b)
  if (sorted.some((middle, i) => i > 0 && middle - sorted[i - 1] < APART)) return none
  const noteOf = new Map(notes.map(({ take, middle }) => [take, Math.round(middle)]))
  return new Map(own.map((file) => [file, noteOf.get(facts[file].take!)!]))
}

/** MIDI number of a frequency, with its fraction. */
const semitoneOf = (hz: number) => 69 + 12 * Math.log2(hz / 440)

/** The median; of an even number the upper one of both in the middle. */
export function middleOf(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1]
}

function reachOf(values: readonly number[]): number {
  return Math.max(...values.map((value) => Math.abs(value - middleOf(values))))
}
