import { ClipField, FormField, Head } from '../program/layout'
import type { EngineState } from '../state'
import { chance, Purpose } from './chance'

const HARDEST = 127

/**
 * The clip that a strike plays of those that were worked ahead: of the note nearest to it, and of those the one whose resonances
 * are nearest to where velocity and chance move them; of its takes the one whose turn it is. `engine.now.formRoot` is the note whose
 * pitch is in it, -1 where that is the pad's root.
 */
export function chooseForm(engine: EngineState, clip: number): number {
  const { now, memory } = engine
  const { arena } = memory
  now.formRoot = -1
  const count = arena[clip + ClipField.formCount]
  if (count === 0) return clip
  const rows = now.program + arena[clip + ClipField.forms]
  const soft = 1 - now.velocity / HARDEST
  const drawn = 2 * chance(engine.seed, arena[now.program + Head.padHash] | 0, now.padStrike, Purpose.form) - 1
  const octaves = arena[clip + ClipField.byVelocity] * soft + arena[clip + ClipField.byChance] * drawn
  const wanted = now.note >= 0 ? now.note : arena[now.program + Head.rootNote]
  let best = rows
  for (let row = rows; row < rows + count * FormField.length; row += FormField.length)
    if (farther(arena, best, row, wanted, octaves)) best = row
  best += FormField.length * takeOf(engine, best, rows + count * FormField.length)
  now.formRoot = arena[best + FormField.root]
  return now.program + arena[best + FormField.clip]
}

/** Strikes go through the takes of a form, which lie behind it. */
function takeOf({ now, memory: { arena } }: EngineState, form: number, end: number): number {
  let takes = 1
  for (let row = form + FormField.length; row < end; row += FormField.length) {
    if (arena[row + FormField.note] !== arena[form + FormField.note] || arena[row + FormField.octaves] !== arena[form + FormField.octaves])
      break
    takes++
  }
  return now.padStrike % takes
}

/** Whether one form is farther from what is wanted than another: by its note first. */
function farther(arena: Float64Array, one: number, other: number, note: number, octaves: number): boolean {
  const [a, b] = [Math.abs(arena[one + FormField.note] - note), Math.abs(arena[other + FormField.note] - note)]
  if (a !== b) return a > b
  return Math.abs(arena[one + FormField.octaves] - octaves) > Math.abs(arena[other + FormField.octaves] - octaves)
}
