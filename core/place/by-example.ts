import type { NamedFile, NameRoles } from './by-names'
import { nameParts } from './name-parts'
import type { NamePart } from './name-parts'
import { planByNames } from './name-plan'
import type { NamePlan } from './name-plan'
import { readNames } from './read-names'

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
export function rolesByExample(files: readonly NamedFile[], example: ExampleCell, said: NameRoles = {}): NameRoles | undefined {
  const read = readNames(files, said)
  const now = new Map(read.slots.map(({ slot, role }) => [slot, role]))
  const own = new Set(read.parts[example.file].map(({ slot }) => slot))
  const varying = read.slots.filter(({ slot, texts }) => texts.length > 1 && own.has(slot)).map(({ slot }) => slot)
  const rest = Object.fromEntries(Object.entries(said).filter(([, role]) => role !== 'level' && role !== 'take'))
  const readings: NameRoles[] = [said]
  for (const level of [undefined, ...varying])
    for (const take of [undefined, ...varying])
      if (level !== take) readings.push({ ...rest, ...(level ? { [level]: 'level' } : {}), ...(take ? { [take]: 'take' } : {}) })
  const changes = (roles: NameRoles) => Object.entries(roles).filter(([slot, role]) => now.get(slot) !== role).length
  const landing = readings.flatMap((roles) => {
    const plan = planByNames(files, readNames(files, roles))
    const cell = cellOfFile(plan, example.file)
    const fits = cell && cell.band === (example.band ?? cell.band) && cell.turn === (example.turn ?? cell.turn)
    return fits ? [{ roles, changes: changes(roles), pads: plan.pads.length }] : []
  })
  return landing.sort((a, b) => a.changes - b.changes || a.pads - b.pads)[0]?.roles
}

/**
 * Files whose names are made like one of them: the same kinds of parts in the same order, and the same words. Where too
 * few are, or where several microphones are looked for, one word may differ.
 */
export function namedAlike(names: readonly string[], example: number, isOfSeveral = false): number[] {
  const read = names.map((name) => {
    const parts = nameParts(name)
    return {
      slots: parts.map(({ slot }) => slot).join('|'),
      words: parts.filter(isWords).flatMap(({ text }) => text.toLowerCase().split(' ')),
    }
  })
  const { slots, words } = read[example]
  const within = (differing: number) =>
    read.flatMap((own, i) => (own.slots === slots && differences(own.words, words) <= differing ? [i] : []))
  const same = within(0)
  return same.length > 2 && !isOfSeveral ? same : within(1)
}

const isWords = ({ slot }: NamePart) => slot.startsWith('words')

function differences(one: readonly string[], other: readonly string[]): number {
  if (one.length !== other.length) return Infinity
  return one.filter((word, i) => word !== other[i]).length
}
