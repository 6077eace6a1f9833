import type { NamedFile } from './by-names'
import type { NamePart, NameRole } from './name-parts'
import { compareNames } from './natural-order'

/** One kind of part over all files. */
export interface Column {
  readonly slot: string
  readonly says?: NameRole
  /** The value of each file, or undefined where its name has none. */
  readonly values: readonly (string | undefined)[]
  readonly numbers: readonly (number | undefined)[]
  readonly texts: readonly string[]
  readonly isNumber: boolean
}

/** The parts of all names, by kind. */
export interface Table {
  readonly files: readonly NamedFile[]
  readonly isPart: boolean
  readonly columns: ReadonlyMap<string, Column>
}

export function tableOf(files: readonly NamedFile[], parts: readonly (readonly NamePart[])[]): Omit<Table, 'isPart'> {
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

const WIDE_STEP = 4

/** Numbers that reach the loudest velocities in wide steps count no takes. */
export function areVelocities({ numbers }: Column): boolean {
  const known = [...new Set(numbers.filter((value) => value !== undefined))].sort((a, b) => a - b)
  const highest = known[known.length - 1] ?? 0
  return known.length > 1 && highest >= 90 && highest <= 127 && (highest - known[0]) / (known.length - 1) > WIDE_STEP
}

/** Whether every drum, by the words and other bare numbers of its name, has just one number here. */
export function isOneOfEachDrum(table: Table, column: Column): boolean {
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

/** Whether loudness is known of enough files to tell anything. */
export const isHeard = ({ files }: Table) => files.filter(({ loudnessDb }) => Number.isFinite(loudnessDb)).length > 2

/** How loudness goes with a number, from -1 to 1: the rank correlation over all files that have both (C. Spearman, 1904). */
export function loudnessFollows({ files }: Table, { numbers }: Column): number {
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
export function rises(table: Table, column: Column): boolean {
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
export function isSameStrike(table: Table, column: Column): boolean {
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
export const CROSSED = 0.8

/** Whether every value of this part has nearly the same company of all other parts. */
export function isCrossed(table: Table, column: Column): boolean {
  const company = new Map<string, Set<string>>()
  column.values.forEach((value, i) => {
    if (value !== undefined) company.set(value, (company.get(value) ?? new Set()).add(restOf(table, column, i)))
  })
  const all = new Set([...company.values()].flatMap((rests) => [...rests]))
  return all.size > 1 && [...company.values()].every((rests) => rests.size >= CROSSED * all.size)
}
