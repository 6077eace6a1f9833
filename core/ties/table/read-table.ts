import type { PadId } from '../../kit/ids'
import { compareNames } from '../../place/natural-order'
import { degreeOf, isBoth, isSpotWord } from './words'

export interface TablePad {
  readonly padId: PadId
  readonly name: string
  /** How long what fills it sounds, s; 0 where nothing does. */
  readonly ringSeconds: number
}

/** One drum as names tell it: rows are where it is struck, columns how far it is open; a hole is a cell that no pad is in. */
export interface TableReading {
  readonly name: string
  readonly spots: readonly string[]
  readonly openings: readonly string[]
  /** By spot, then opening. */
  readonly cells: readonly (readonly (PadId | undefined)[])[]
  /** Whether most words of a factor are known to say a spot or an opening; else it is only that the names would fit. */
  readonly isSaid: boolean
}

export const MOST_ROWS = 32
export const MOST_COLUMNS = 32
/** Readings with words joined in all ways: of so many pairs at most. */
const MOST_JOINS = 6
/** A table of which less than this is filled is none. */
const LEAST_FILLED = 0.5

/**
 * Reads pads as one drum: the words that all names share are the drum, those that differ are two factors, the spot and the
 * opening, told apart by which of them never stand together. Of several ways to read them the one with the fewest holes counts.
 * Which factor is the opening is told by words that are known for most of one, else by what explains how long the pads sound.
 * None where names are alike, or fit no table.
 */
export function readTable(pads: readonly TablePad[]): TableReading | undefined {
  if (pads.length < 2) return undefined
  const split = pads.map(({ name }) => wordsOf(name))
  const shared = [...new Set(split[0])].filter((word) => split.every((words) => words.includes(word)))
  const own = split.map((words) => words.filter((word) => !shared.includes(word)))
  const readings = joinings(own).flatMap((rows) => factored(rows))
  const good = readings.filter((pairs) => isTable(pairs, shared.length > 0)).map((pairs) => turned(pairs, pads))
  const best = good.sort((a, b) => Number(a.isMixed) - Number(b.isMixed) || a.holes - b.holes || b.knows - a.knows)[0]
  return best && { ...tableOf(shared.join(' '), best.pairs, pads), isSaid: best.isSaid }
}

type Pair = readonly [string, string]

/** Words between separators, digits and borders of case, in small letters. */
function wordsOf(name: string): string[] {
  return (name.replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2').match(/\p{L}+|\p{N}+/gu) ?? []).map((word) => word.toLowerCase())
}

/** The names, with words joined in each way that may make one word of two: those of one stand always beside those of the other. */
function joinings(rows: readonly (readonly string[])[]): string[][][] {
  const whole = rows.map((row) => joined(row, twins(rows)))
  const pairs = companions(whole).slice(0, MOST_JOINS)
  return Array.from({ length: 2 ** pairs.length }, (_, bits) => {
    const chosen = pairs.filter((_pair, i) => (bits >> i) & 1)
    return whole.map((row) => joined(row, chosen))
  })
}

/** Neighbours that only ever stand together. */
function twins(rows: readonly (readonly string[])[]): Pair[] {
  return companions(rows).filter(([a, b]) => rows.every((row) => row.includes(a) === row.includes(b)))
}

/** Neighbours of which at least one never stands without the other. */
function companions(rows: readonly (readonly string[])[]): Pair[] {
  const pairs = new Map<string, Pair>()
  for (const row of rows) for (let i = 1; i < row.length; i++) pairs.set(`${row[i - 1]} ${row[i]}`, [row[i - 1]!, row[i]!])
  const isBeside = (row: readonly string[], [a, b]: Pair) => row.some((word, i) => word === a && row[i + 1] === b)
  const leads = (word: string, pair: Pair) => rows.every((row) => !row.includes(word) || isBeside(row, pair))
  return [...pairs.values()].filter((pair) => leads(pair[0], pair) || leads(pair[1], pair))
}

function joined(row: readonly string[], pairs: readonly Pair[]): string[] {
  const out: string[] = []
  for (const word of row) {
    const last = out[out.length - 1]
    if (last !== undefined && pairs.some(([a, b]) => (last === a || last.endsWith(` ${a}`)) && word === b))
      out[out.length - 1] = `${last} ${word}`
    else out.push(word)
  }
  return out
}

/** Two factors of which no two words of one stand in the same name, in every way; none where three stand in one. */
function factored(rows: readonly (readonly string[])[]): Pair[][] {
  if (rows.some((row) => row.length > 2 || new Set(row).size < row.length)) return []
  const side = new Map<string, { readonly part: number; readonly side: 0 | 1 }>()
  let parts = 0
  for (const start of rows.flat()) {
    if (side.has(start)) continue
    const open = [start]
    side.set(start, { part: parts, side: 0 })
    for (let word = open.pop(); word !== undefined; word = open.pop()) {
      const at = side.get(word)!
      for (const row of rows) {
        if (!row.includes(word)) continue
        for (const other of row) {
          if (other === word) continue
          const there = side.get(other)
          if (there && there.side === at.side) return []
          if (there) continue
          side.set(other, { part: parts, side: at.side === 0 ? 1 : 0 })
          open.push(other)
        }
      }
    }
    parts++
  }
  const count = 2 ** Math.min(MOST_JOINS, Math.max(0, parts - 1))
  return Array.from({ length: count }, (_, bits) =>
    rows.map((row): Pair => {
      const of = (wanted: number) =>
        row.find((word) => {
          const at = side.get(word)!
          return (at.side ^ (at.part > 0 ? (bits >> (at.part - 1)) & 1 : 0)) === wanted
        }) ?? ''
      return [of(0), of(1)]
    }),
  )
}

const distinct = (words: readonly string[]): string[] => [...new Set(words)]

/** Names that share no word are one drum only where they leave no hole. */
function isTable(pairs: readonly Pair[], isShared: boolean): boolean {
  const [rows, columns] = [distinct(pairs.map(([row]) => row)).length, distinct(pairs.map(([, column]) => column)).length]
  const isEach = new Set(pairs.map((pair) => pair.join('\n'))).size === pairs.length
  return (
    isEach &&
    rows <= MOST_ROWS &&
    columns <= MOST_COLUMNS &&
    (isShared ? rows * columns * LEAST_FILLED <= pairs.length : rows > 1 && columns > 1 && rows * columns === pairs.length)
  )
}

interface Turned {
  readonly pairs: Pair[]
  readonly holes: number
  readonly knows: number
  readonly isMixed: boolean
  readonly isSaid: boolean
}

/** The pairs with the spot first, how many holes they leave, and how sure it is which is which. */
function turned(pairs: readonly Pair[], pads: readonly TablePad[]): Turned {
  const sides = [0, 1].map((side) => distinct(pairs.map((pair) => pair[side]!)))
  const known = sides.map((words) => openness(words) - spotness(words))
  const byRing = [0, 1].map((side) => explained(pairs.map((pair) => pair[side]!), pads)) // prettier-ignore
  const isSingle = sides.some((words) => words.length === 1)
  const single = sides[0]!.length === 1 ? 1 : 0 // of one factor alone that is the spot, unless its words say how far it is open
  const opens =
    known[0] !== known[1] && (!isSingle || known[single]! > 0)
      ? known[0]! > known[1]! ? 0 : 1
      : isSingle ? 1 - single : byRing[0]! > byRing[1]! ? 0 : 1 // prettier-ignore
  const holes = sides[0]!.length * sides[1]!.length - pairs.length
  return {
    pairs: pairs.map((pair) => [pair[1 - opens]!, pair[opens]!]),
    holes,
    knows: Math.abs(known[0]! - known[1]!),
    isMixed: pairs.flat().some(isBoth),
    isSaid: known.some((share) => Math.abs(share) > 0.5),
  }
}

/** The share of words that say how far a drum is open; words that are left out say nothing. */
function openness(words: readonly string[]): number {
  const said = words.filter(Boolean)
  return said.length === 0 ? 0 : said.filter((word) => degreeOf(word) !== undefined).length / said.length
}

function spotness(words: readonly string[]): number {
  const said = words.filter(Boolean)
  return said.length === 0 ? 0 : said.filter(isSpotWord).length / said.length
}

/** The share of how differently the pads sound on, by logarithm, that a factor explains: 0..1. */
function explained(words: readonly string[], pads: readonly TablePad[]): number {
  const logs = pads.map(({ ringSeconds }) => Math.log(Math.max(1e-3, ringSeconds)))
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length
  const whole = mean(logs)
  const total = logs.reduce((sum, value) => sum + (value - whole) ** 2, 0)
  if (total === 0) return 0
  const between = distinct(words).reduce((sum, word) => {
    const own = logs.filter((_value, i) => words[i] === word)
    return sum + own.length * (mean(own) - whole) ** 2
  }, 0)
  // A factor of many values explains much by chance alone: what each value takes is taken off.
  const [n, k] = [logs.length, distinct(words).length]
  return k >= n ? 0 : 1 - (total - between) / (n - k) / (total / (n - 1))
}

function tableOf(name: string, pairs: readonly Pair[], pads: readonly TablePad[]): Omit<TableReading, 'isSaid'> {
  const spots = distinct(pairs.map(([spot]) => spot))
  const openings = inOrder(distinct(pairs.map(([, opening]) => opening)), pairs, pads)
  const cells = spots.map((spot) =>
    openings.map((opening) => pads[pairs.findIndex((pair) => pair[0] === spot && pair[1] === opening)]?.padId),
  )
  return { name: capital(name), spots: spots.map(capital), openings: openings.map(capital), cells }
}

/** From closed to open: as their words say where all do, else by how long the pads sound, else by name. */
function inOrder(openings: readonly string[], pairs: readonly Pair[], pads: readonly TablePad[]): string[] {
  const degrees = openings.map((word) => (word === '' ? undefined : degreeOf(word)))
  const rings = openings.map((word) => median(pads.filter((_pad, i) => pairs[i]![1] === word).map(({ ringSeconds }) => ringSeconds)))
  const areSaid = degrees.every((degree, i) => degree !== undefined || openings[i] === '') && degrees.some((degree) => degree !== undefined)
  const places = openings.map((_word, i) => i)
  const by = areSaid ? degrees.map((degree) => degree ?? 0.5) : rings.every((ring) => ring > 0) ? rings : rings.map(() => 0)
  return places.sort((a, b) => by[a]! - by[b]! || compareNames(openings[a]!, openings[b]!)).map((i) => openings[i]!)
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? 0
}

const capital = (words: string): string => (words[0]?.toUpperCase() ?? '') + words.slice(1)
