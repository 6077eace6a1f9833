import { compareNames } from './natural-order'
import { LETTER, nameParts } from './name-parts'
import type { NamePart, NameReading, NameRole } from './name-parts'

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

/** Reads all names alike: what looks like ranges, notes or counting letters is that only if it makes sense in all of them. */
function partsOf(files: readonly NamedFile[]): NamePart[][] {
  const read = (reading: NameReading) => files.map(({ name }) => nameParts(name, reading))
  const plain: NameReading = { ranges: 'none', notes: true, letters: 'none' }
  const letters = (['last', 'first'] as const).find((way) => areLetters(read({ ...plain, letters: way }))) ?? 'none'
  const notes = areNotes(read({ ...plain, letters }))
  const ranges = (['first', 'last'] as const).find((way) => areRanges(read({ ranges: way, notes, letters }).flat().flatMap((part) => (part.range ? [part.range] : [])))) // prettier-ignore
  return read({ ranges: ranges ?? 'none', notes, letters })
}

const FEWEST_LETTERS = 3

/** Letters count where each name has one, and all of them together are a, b, c and on. */
function areLetters(parts: readonly (readonly NamePart[])[]): boolean {
  const counts = parts.map((own) => own.filter(({ slot }) => slot === LETTER))
  const found = [...new Set(counts.flat().map(({ number }) => number!))].sort((a, b) => a - b)
  return counts.every((own) => own.length === 1) && found.length >= FEWEST_LETTERS && found.every((letter, i) => letter === i + 1)
}

/** Ranges of one set meet without lying over each other, and reach the loudest. */
function areRanges(ranges: readonly (readonly [number, number])[]): boolean {
  if (ranges.length === 0) return true
  const sorted = [...new Map(ranges.map((range) => [String(range), range])).values()].sort((a, b) => a[0] - b[0])
  return sorted.every((range, i) => i === 0 || range[0] > sorted[i - 1][1]) && sorted[sorted.length - 1][1] >= 100
}

/** One letter with many numbers counts something; notes are of several letters, or one each. */
function areNotes(parts: readonly (readonly NamePart[])[]): boolean {
  const notes = [...new Set(parts.flat().flatMap((part) => (part.slot === 'note' ? [part.text] : [])))]
  if (notes.length < 3) return true
  return new Set(notes.map((text) => text.replace(/-?\d+$/, ''))).size > 1
}

/** Runs of words lose what all names have in common at the front and back, so that what differs can be compared. */
function splitRuns(parts: readonly NamePart[][]): NamePart[][] {
  const runs = new Map<string, string[][]>()
  for (const own of parts)
    for (const { slot, text } of own) if (slot.startsWith('words')) runs.set(slot, [...(runs.get(slot) ?? []), text.split(' ')])
  const common = new Map([...runs].map(([slot, texts]) => [slot, commonEnds(texts)]))
  const crossing = new Map(
    [...runs].map(([slot, texts]) => [slot, crossedEnd(texts.map((words) => withoutEnds(words, common.get(slot)!)))]),
  )
  return parts.map((own) =>
    own.flatMap((part): NamePart[] => {
      const ends = common.get(part.slot)
      if (!ends) return [part]
      const words = part.text.split(' ')
      const middle = withoutEnds(words, ends)
      const said = (place: string, of: string[]) => (of.length > 0 ? [{ slot: `${part.slot}${place}`, text: of.join(' ') }] : [])
      const end = crossing.get(part.slot)
      const inside = { none: said('', middle), first: [...said(' first', middle.slice(0, 1)), ...said('', middle.slice(1))], last: [...said('', middle.slice(0, -1)), ...said(' last', middle.slice(-1))] }[end ?? 'none'] // prettier-ignore
      return [...said(' before', words.slice(0, ends.front)), ...inside, ...said(' after', words.slice(words.length - ends.back))]
    }),
  )
}

const withoutEnds = (words: string[], { front, back }: { front: number; back: number }) => words.slice(front, words.length - back)

/** Which end of runs of words is a part of its own, for each of its words comes with nearly all that the others say. */
function crossedEnd(texts: readonly string[][]): 'first' | 'last' | 'none' {
  if (texts.some((words) => words.length < 2)) return 'none'
  const isCrossing = (end: (words: string[]) => string, rest: (words: string[]) => string) => {
    const company = new Map<string, Set<string>>()
    for (const words of texts) company.set(end(words), (company.get(end(words)) ?? new Set()).add(rest(words)))
    const rests = new Set(texts.map(rest))
    return company.size > 1 && rests.size > 1 && [...company.values()].every((own) => own.size >= CROSSED * rests.size)
  }
  if (isCrossing((words) => words[words.length - 1].toLowerCase(), (words) => words.slice(0, -1).join(' ').toLowerCase())) return 'last' // prettier-ignore
  return isCrossing(
    (words) => words[0].toLowerCase(),
    (words) => words.slice(1).join(' ').toLowerCase(),
  )
    ? 'first'
    : 'none'
}

function commonEnds(texts: readonly string[][]): { front: number; back: number } {
  const shortest = Math.min(...texts.map((words) => words.length))
  const alike = (at: (words: string[]) => string) => texts.every((words) => at(words).toLowerCase() === at(texts[0]).toLowerCase())
  let front = 0
  while (front < shortest && alike((words) => words[front])) front++
  let back = 0
  while (back < shortest - front && alike((words) => words[words.length - 1 - back])) back++
  return { front, back }
}

interface Column {
  readonly slot: string
  readonly says?: NameRole
  /** The value of each file, or undefined where its name has none. */
  readonly values: readonly (string | undefined)[]
  readonly numbers: readonly (number | undefined)[]
  readonly texts: readonly string[]
  readonly isNumber: boolean
}

interface Table {
  readonly files: readonly NamedFile[]
  readonly isPart: boolean
  readonly columns: ReadonlyMap<string, Column>
}

function tableOf(files: readonly NamedFile[], parts: readonly (readonly NamePart[])[]): Omit<Table, 'isPart'> {
  const order = [...new Set(parts.flatMap((own) => own.map((part) => part.slot)))]
  const columns = order.map((slot): Column => {
    const own = parts.map((all) => all.find((part) => part.slot === slot))
    const said = own.find((part) => part !== undefined)
    return {
      slot,
      ...(said?.says ? { says: said.says } : {}),
      values: own.map((part) => (part?.number === undefined ? part?.text.toLowerCase() : String(part.number))),
      numbers: own.map((part) => part?.number),
      texts: [...new Set(own.flatMap((part) => (part ? [part.text] : [])))].sort(compareNames),
      isNumber: said?.number !== undefined,
    }
  })
  return { files, columns: new Map(columns.map((column) => [column.slot, column])) }
}

/** Decides what each kind of part stands for: by what it says, then by how it varies against the others. */
function rolesOf(table: Table, given: NameRoles): { roles: Map<string, NameRole>; question?: NameQuestion } {
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

const WIDE_STEP = 4

/** Numbers that reach the loudest velocities in wide steps count no takes. */
function areVelocities({ numbers }: Column): boolean {
  const known = [...new Set(numbers.filter((value) => value !== undefined))].sort((a, b) => a - b)
  const highest = known[known.length - 1] ?? 0
  return known.length > 1 && highest >= 90 && highest <= 127 && (highest - known[0]) / (known.length - 1) > WIDE_STEP
}

/** Whether every drum, by the words and other bare numbers of its name, has just one number here. */
function isOneOfEachDrum(table: Table, column: Column): boolean {
  const words = [...table.columns.values()].filter(
    (one) => one !== column && !one.says && one.slot !== 'microphone' && one.slot !== 'strength',
  )
  const drums = new Map<string, Set<string>>()
  column.values.forEach((value, i) => {
    const drum = words.map(({ values }) => values[i] ?? '').join(' ')
    if (value !== undefined) drums.set(drum, (drums.get(drum) ?? new Set()).add(value))
  })
  return drums.size > 1 && [...drums.values()].every((values) => values.size === 1)
}

const isHeard = ({ files }: Table) => files.filter(({ loudnessDb }) => Number.isFinite(loudnessDb)).length > 2

/** How loudness goes with a number, from -1 to 1: the rank correlation over all files that have both (C. Spearman, 1904). */
function loudnessFollows({ files }: Table, { numbers }: Column): number {
  const pairs = numbers.flatMap((value, i) => {
    const db = files[i].loudnessDb
    return value === undefined || db === undefined || !Number.isFinite(db) ? [] : [[value, db] as const]
  })
  if (pairs.length < 3) return 0
  const x = ranksOf(pairs.map(([value]) => value))
  const y = ranksOf(pairs.map(([, db]) => db))
  const mean = (pairs.length - 1) / 2
  let both = 0
  let xs = 0
  let ys = 0
  for (let i = 0; i < pairs.length; i++) {
    both += (x[i] - mean) * (y[i] - mean)
    xs += (x[i] - mean) ** 2
    ys += (y[i] - mean) ** 2
  }
  return xs > 0 && ys > 0 ? both / Math.sqrt(xs * ys) : 0
}

/** Ranks from 0, equal values sharing the middle of theirs. */
function ranksOf(values: readonly number[]): number[] {
  const order = values.map((_, i) => i).sort((a, b) => values[a] - values[b])
  const ranks = new Array<number>(values.length).fill(0)
  for (let from = 0; from < order.length;) {
    let to = from
    while (to < order.length && values[order[to]] === values[order[from]]) to++
    for (let i = from; i < to; i++) ranks[order[i]] = (from + to - 1) / 2
    from = to
  }
  return ranks
}

const RISING = 0.9
const RISING_DB = 6

/** Whether numbers that could count takes go along with loudness so closely that they may be levels. */
function rises(table: Table, column: Column): boolean {
  const known = table.files.flatMap(({ loudnessDb }) => (loudnessDb === undefined || !Number.isFinite(loudnessDb) ? [] : [loudnessDb]))
  return known.length >= 4 && Math.max(...known) - Math.min(...known) > RISING_DB && Math.abs(loudnessFollows(table, column)) > RISING
}

/** Lengths tell strikes apart only where they differ. */
const hasLengths = ({ files }: Table) =>
  files.every(({ frames }) => frames !== undefined) && new Set(files.map(({ frames }) => frames)).size > 1

/** What a file's name says without one part of it. */
function restOf(table: Table, without: Column, index: number): string {
  return [...table.columns.values()].map((column) => (column === without ? '' : (column.values[index] ?? ''))).join('|')
}

/** Whether files that differ in nothing but this part are equally long, as microphones of one strike are. */
function isSameStrike(table: Table, column: Column): boolean {
  if (!hasLengths(table)) return false
  const groups = new Map<string, Set<number>>()
  const sizes = new Map<string, number>()
  table.files.forEach(({ frames }, i) => {
    const rest = restOf(table, column, i)
    groups.set(rest, (groups.get(rest) ?? new Set()).add(frames!))
    sizes.set(rest, (sizes.get(rest) ?? 0) + 1)
  })
  const several = [...groups].filter(([rest]) => sizes.get(rest)! > 1)
  const alike = several.filter(([, lengths]) => lengths.size === 1).length
  return several.length > 0 && alike > 0.9 * several.length
}

/** A file or a few may be missing. */
const CROSSED = 0.8

/** Whether every value of this part has nearly the same company of all other parts. */
function isCrossed(table: Table, column: Column): boolean {
  const company = new Map<string, Set<string>>()
  column.values.forEach((value, i) => {
    if (value !== undefined) company.set(value, (company.get(value) ?? new Set()).add(restOf(table, column, i)))
  })
  const all = new Set([...company.values()].flatMap((rests) => [...rests]))
  return all.size > 1 && [...company.values()].every((rests) => rests.size >= CROSSED * all.size)
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
