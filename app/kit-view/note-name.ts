import { useStore } from 'zustand'
import { z } from 'zod'

import { deviceSettings } from '../ui/device/device-settings'

const KEY = 'heliaster-middle-c'
export const MIDDLE_C = 60
const octaves = [3, 4, 5] as const
/** The octave that middle C is counted in: programs and keyboards disagree about it. */
export type MiddleC = (typeof octaves)[number]

const schema = z.object({ octave: z.literal(octaves) })
export const middleC = deviceSettings(KEY, schema, { octave: 4 as MiddleC }, { older: (text) => ({ octave: Number(text) as MiddleC }) })

export function chooseMiddleC(octave: MiddleC): void {
  middleC.setState({ octave })
}

/** The names of notes, told anew when the counting of octaves changes. */
export function useNoteName(): (note: number) => string {
  useStore(middleC)
  return noteName
}

const NAMES = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B']

/** A MIDI note by name, its octave as middle C is counted. */
export function noteName(note: number): string {
  return `${NAMES[note % 12]}${Math.floor((note - MIDDLE_C) / 12) + middleC.getState().octave}`
}

/** How fast the string of a note swings. */
export function noteHz(note: number, a4Hz = 440): number {
  return a4Hz * 2 ** ((note - 69) / 12)
}

/** The MIDI note of a number from 0 to 127 or a name such as C2 or f#3; undefined for anything else. */
export function noteOf(typed: string): number | undefined {
  const word = typed.trim()
  if (/^\d+$/.test(word)) return Number(word) <= 127 ? Number(word) : undefined
  const match = /^([A-Ga-g])([#♯sb♭]?)(-?\d+)$/.exec(word)
  if (!match) return undefined
  const [, letter, sign, octave] = match
  const step = NAMES.indexOf(letter.toUpperCase()) + (sign === '' ? 0 : /[b♭]/.test(sign) ? -1 : 1)
  const note = MIDDLE_C + 12 * (Number(octave) - middleC.getState().octave) + step
  return note >= 0 && note <= 127 ? note : undefined
}

/** Notes as they are typed: one or several, with commas, and ranges such as C2..B3 or 36-47. A sentence where one is none. */
export function notesOf(typed: string): number[] | string {
  const notes: number[] = []
  for (const word of typed.split(/[\s,;]+/).filter(Boolean)) {
    const [low, high] = (noteOf(word) === undefined ? word.split(/\.\.|–|(?<=\d)-/) : [word]).map(noteOf)
    if (low === undefined || (word.match(/\.\.|–|\d-/) && noteOf(word) === undefined && high === undefined))
      return `“${word}” is no note. Notes are numbers from 0 to 127 or names such as C2, with commas between; C2..B3 means all from C2 to B3.`
    for (let note = low; note <= (high ?? low); note++) notes.push(note)
  }
  return [...new Set(notes)]
}

/** Notes in words, runs of three and more as a range. */
export function notesInWords(notes: readonly number[]): string {
  const words: string[] = []
  for (let at = 0; at < notes.length;) {
    let end = at
    while (end + 1 < notes.length && notes[end + 1] === notes[end] + 1) end++
    if (end - at > 1) words.push(`${noteName(notes[at])}..${noteName(notes[end])}`)
    else for (let i = at; i <= end; i++) words.push(noteName(notes[i]))
    at = end + 1
  }
  return words.join(', ')
}

/** The note nearest to a frequency and how far off it is, in cents. */
export function nearestNote(hz: number, a4Hz = 440): { note: number; cents: number } {
  const exact = 69 + 12 * Math.log2(hz / a4Hz)
  const note = Math.round(exact)
  return { note, cents: Math.round((exact - note) * 100) }
}
