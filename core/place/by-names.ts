import type { NamePart, NameRole } from './name-parts'
import { rolesOf } from './name-roles'
import { partsOf, splitRuns } from './name-slots'
import { loudnessFollows, tableOf } from './name-table'
import type { Table } from './name-table'

/** A file to be placed by its name. What else is known of it settles what names leave open. */
export interface NamedFile {
  readonly name: string
  readonly loudnessDb?: number
  readonly frames?: number
}

/** What a file's name says of it. */
export interface NameFacts {
  readonly drum: string
  readonly note?: number
  readonly microphone?: string
  /** How hard the strike was, for putting in order; and the velocities it answers, where the name says so. */
  readonly level?: number
  readonly range?: readonly [low: number, high: number]
  readonly take?: number
}

/** One kind of part that the names have: what it shows in them, and what it is taken for. */
export interface NameSlot {
  readonly slot: string
  readonly role: NameRole
  /** Different texts of it, in natural order. */
  readonly texts: readonly string[]
}

/** What the names leave open, and the answers it can have. */
export interface NameQuestion {
  readonly slot: string
  readonly texts: readonly string[]
  readonly roles: readonly NameRole[]
}

export interface ReadNames {
  readonly slots: readonly NameSlot[]
  readonly parts: readonly (readonly NamePart[])[]
  readonly facts: readonly NameFacts[]
  readonly question?: NameQuestion
}

export type NameRoles = Readonly<Record<string, NameRole>>

/**
 * Understands names by comparing them with each other, all at the same slots. `isPart`: they are some of a set, those that
 * are made of more parts than the rest. See `readNames`.
 */
export function readTogether(files: readonly NamedFile[], given: NameRoles = {}, isPart = false): ReadNames {
  const parts = splitRuns(partsOf(files))
  const table = { ...tableOf(files, parts), isPart }
  const { roles, question } = rolesOf(table, given)
  const facts = parts.map((own) => factsOf(own, roles, table))
  const slots = [...table.columns.values()].map(({ slot, texts }) => ({ slot, role: roles.get(slot) ?? 'nothing', texts }))
  return { slots, parts, facts, ...(question ? { question } : {}) }
}

function factsOf(parts: readonly NamePart[], roles: ReadonlyMap<string, NameRole>, table: Table): NameFacts {
  const of = (role: NameRole) => parts.filter((part) => roles.get(part.slot) === role)
  const text = (role: NameRole) =>
    of(role)
      .map((part) => part.text)
      .join(' ')
  const [note] = of('note')
  const [velocity] = of('velocity')
  const [level] = of('level')
  const [take] = of('take')
  const microphone = text('microphone')
  return {
    drum: text('drum') || 'Pad',
    ...(note?.number === undefined ? {} : { note: note.number }),
    ...(microphone ? { microphone } : {}),
    ...(velocity?.range ? { range: velocity.range, level: velocity.range[0] } : {}),
    ...(level ? { level: levelOf(level, table) } : {}),
    ...(take ? { take: take.number ?? wordPlace(take, table) } : {}),
  }
}

/** How hard, for putting in order: where the loudest have the lowest number, numbers count down. */
function levelOf(part: NamePart, table: Table): number {
  const column = table.columns.get(part.slot)!
  const value = part.number ?? wordPlace(part, table)
  return part.slot !== 'strength' && loudnessFollows(table, column) < -0.5 ? -value : value
}

function wordPlace(part: NamePart, table: Table): number {
  return table.columns.get(part.slot)!.texts.indexOf(part.text)
}
