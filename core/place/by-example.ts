import { planByNames } from './name-plan'
import type { NamePlan } from './name-plan'
import { readNames } from './names/read'
import { tokensOf } from './names/tokens'
import type { Likeness, NamedFile, NameRoles } from './names/types'

/**
 * One file in its cell: bands and turns are counted from 0, soft bands first; what is left out may be any. `file` is its
 * place among the files.
 */
export interface ExampleCell {
  readonly file: number
  readonly band?: number
  readonly turn?: number
}

export interface PlannedCell extends Required<ExampleCell> {
  readonly pad: number
  readonly microphone: string
}

/** Where a plan puts a file; undefined where it finds no place for it. */
export function cellOfFile(plan: NamePlan, file: number): PlannedCell | undefined {
  for (const [pad, { bands }] of plan.pads.entries())
    for (const [band, { turns }] of bands.entries())
      for (const [turn, { files }] of turns.entries())
        for (const [microphone, placed] of files) if (placed === file) return { pad, band, turn, file, microphone }
  return undefined
}

/**
 * What the parts of the names must stand for so that one file lands in the cell that someone has shown, as close as can
 * be to what is taken for granted and with as few pads as can be; the other files then follow by the same parts.
 * Undefined where no reading does that.
 */
export function rolesByExample(
  files: readonly NamedFile[],
  example: ExampleCell,
  said: NameRoles = {},
  likeness?: Likeness,
): NameRoles | undefined {
  const read = readNames(files, said, likeness)
  const now = new Map(read.slots.map(({ slot, role }) => [slot, role]))
  const own = new Set(read.parts[example.file].map(({ slot }) => slot))
  const varying = read.slots.filter(({ slot, texts }) => texts.length > 1 && own.has(slot)).map(({ slot }) => slot)
  // What is shown says how hard and which take; microphones and notes stay what they are.
  const isKept = (role: string) => role === 'microphone' || role === 'note'
  const kept = Object.fromEntries(
    [...now].filter(([slot, role]) => isKept(role) && read.slots.some((one) => one.slot === slot && one.texts.length > 1)),
  )
  const rest = { ...kept, ...Object.fromEntries(Object.entries(said).filter(([, role]) => role !== 'level' && role !== 'take')) }
  const readings: NameRoles[] = [said]
  for (const level of [undefined, ...varying])
    for (const take of [undefined, ...varying])
      if (level !== take) readings.push({ ...rest, ...(level ? { [level]: 'level' } : {}), ...(take ? { [take]: 'take' } : {}) })
  const changes = (roles: NameRoles) => Object.entries(roles).filter(([slot, role]) => now.get(slot) !== role).length
  const landing = readings.flatMap((roles) => {
    const plan = planByNames(files, readNames(files, roles, likeness))
    const cell = cellOfFile(plan, example.file)
    const fits = cell && cell.band === (example.band ?? cell.band) && cell.turn === (example.turn ?? cell.turn)
    const lost = Object.entries(kept).filter(([slot, role]) => (roles[slot] ?? role) !== role).length
    return fits ? [{ roles, lost, changes: changes(roles), pads: plan.pads.length }] : []
  })
  return landing.sort((a, b) => a.lost - b.lost || a.changes - b.changes || a.pads - b.pads)[0]?.roles
}

/**
 * Files whose names are made like one of them: the same kinds of parts in the same order, and the same words. Where too
 * few are, or where several microphones are looked for, one word may differ.
 */
export function namedAlike(names: readonly string[], example: number, isOfSeveral = false): number[] {
  const read = names.map((name) => {
    const tokens = tokensOf(name, false)
    const words = tokens.flatMap(({ kind, text }) => (kind === 'word' ? [text.toLowerCase()] : []))
    return { slots: tokens.map(({ kind }) => kind).join('|'), words }
  })
  const { slots, words } = read[example]
  const same = read.flatMap((own, i) => (own.slots === slots && differences(own.words, words).length === 0 ? [i] : []))
  const isOften = (count: number) => isOfSeveral || same.length < 3 || count >= SHARE * same.length
  // Where one word differs, as a microphone's does, there are about as many names with each of its words.
  const others = new Map<string, number[]>()
  read.forEach((own, i) => {
    const [at, ...more] = own.slots === slots ? differences(own.words, words) : []
    if (at === undefined || more.length > 0) return
    const key = `${at} ${own.words[at]}`
    others.set(key, [...(others.get(key) ?? []), i])
  })
  return [...same, ...[...others.values()].filter((files) => isOften(files.length)).flat()].sort((a, b) => a - b)
}

const SHARE = 0.5

/** The places of words that differ. */
function differences(one: readonly string[], other: readonly string[]): number[] {
  return one.length === other.length ? one.flatMap((word, i) => (word === other[i] ? [] : [i])) : [-1, -1]
}
