import type { NameQuestion, NameRoles } from './by-names'
import type { NameRole } from './name-parts'
import { areVelocities, isCrossed, isHeard, isOneOfEachDrum, isSameStrike, loudnessFollows, rises } from './name-table'
import type { Column, Table } from './name-table'

/** Decides what each kind of part stands for: by what it says, then by how it varies against the others. */
export function rolesOf(table: Table, given: NameRoles): { roles: Map<string, NameRole>; question?: NameQuestion } {
  const roles = new Map<string, NameRole>()
  const columns = [...table.columns.values()]
  const has = (role: NameRole) => columns.some(({ slot, texts }) => roles.get(slot) === role && texts.length > 1)
  for (const { slot } of columns) if (given[slot]) roles.set(slot, given[slot])
  const set = (column: Column, role: NameRole) => given[column.slot] ?? (roles.set(column.slot, role), role)
  const open = () => columns.filter(({ slot }) => !roles.has(slot))
  // A word of strength that never changes is part of the drum's name, as is a place that never changes.
  for (const column of open()) {
    if (isWordOnce(column)) set(column, 'drum')
    else if (column.says) set(column, column.says)
  }
  const words = open().filter((column) => !column.isNumber)
  const numbers = open().filter((column) => column.isNumber)
  for (const column of words.filter(({ texts }) => texts.length < 2)) set(column, 'drum')
  const differing = words.filter(({ texts }) => texts.length > 1)
  let question: NameQuestion | undefined
  const ask = (column: Column, options: readonly NameRole[]) => {
    set(column, options[0])
    question ??= { slot: column.slot, texts: column.texts, roles: options }
  }
  readNumbers(table, numbers, { has, set, ask })
  const isNamed = words.some(({ texts, slot }) => texts.length < 2 && roles.get(slot) === 'drum')
  const asLong = differing.filter((column) => isSameStrike(table, column)).sort((a, b) => a.texts.length - b.texts.length)
  // Where everything is as long as everything, lengths tell nothing: the fewest may be microphones.
  if (asLong.length > 1 && !has('microphone')) ask(asLong[0], ['microphone', 'drum'])
  for (const column of differing.filter(({ slot }) => !roles.has(slot))) {
    if (asLong.length === 1 && column === asLong[0]) set(column, 'microphone')
    else if (has('microphone') || !isCrossed(table, column)) set(column, 'drum')
    // Where the drum has a name besides, what differs is rather a microphone than another drum.
    else ask(column, isNamed && (has('level') || has('velocity')) ? ['microphone', 'drum'] : ['drum', 'microphone'])
  }
  return { roles, ...(question ? { question } : {}) }
}

const isWordOnce = ({ says, texts, isNumber, slot }: Column) =>
  (slot === 'microphone' && says === 'microphone' && texts.length < 2) || (slot === 'strength' && isNumber && texts.length < 2)

interface Deciding {
  has(role: NameRole): boolean
  set(column: Column, role: NameRole): NameRole
  ask(column: Column, options: readonly NameRole[]): void
}

const MOST_HAVE = 0.7
const LOWEST_NOTE = 24
const HIGHEST_NOTE = 108

/** Numbers without a word: a note where each drum has its own, then how hard and which take. */
function readNumbers(table: Table, numbers: readonly Column[], { has, set, ask }: Deciding): void {
  const rest: Column[] = []
  for (const column of numbers) {
    const known = column.numbers.filter((value) => value !== undefined)
    const isNote = known.every((value) => value >= LOWEST_NOTE && value <= HIGHEST_NOTE)
    if (column.texts.length < 2) set(column, isNote && column.slot !== 'number of a word' ? 'note' : 'drum')
    else if (isNote && !has('note') && isOneOfEachDrum(table, column)) set(column, 'note')
    // What many names do not have is a number of some drums.
    else if (known.length < MOST_HAVE * table.files.length) set(column, 'drum')
    else rest.push(column)
  }
  const glued = rest.findIndex(({ slot }) => slot === 'number of a word')
  if (glued >= 0 && (has('take') || rest.length > 2)) set(rest.splice(glued, 1)[0], 'drum')
  if (rest.length === 0) return
  const follow = (column: Column) => Math.abs(loudnessFollows(table, column))
  if (rest.length === 1) {
    const [column] = rest
    if (has('take')) {
      if (has('level') || has('velocity')) set(column, 'drum')
      else if (isHeard(table)) set(column, follow(column) > 0.3 ? 'level' : 'drum')
      else set(column, table.isPart ? 'drum' : 'level')
    } else if (!has('level') && !has('velocity') && rises(table, column)) ask(column, ['take', 'level'])
    else set(column, 'take')
    return
  }
  const [last, before] = [rest[rest.length - 1], rest[rest.length - 2]]
  for (const column of rest.slice(0, -2)) set(column, 'drum')
  const hasLevel = has('level') || has('velocity')
  if (hasLevel || has('take')) {
    set(before, 'drum')
    set(last, has('take') ? (hasLevel ? 'drum' : 'level') : 'take')
  } else if (areVelocities(before) !== areVelocities(last)) {
    const level = areVelocities(before) ? before : last
    set(level, 'level')
    set(level === before ? last : before, 'take')
  } else if (Math.abs(follow(before) - follow(last)) > 0.3) {
    const level = follow(before) > follow(last) ? before : last
    set(level, 'level')
    set(level === before ? last : before, 'take')
  } else {
    ask(before, ['level', 'take'])
    set(last, 'take')
  }
}
