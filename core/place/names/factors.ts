import { compareNames } from '../natural-order'
import { keyOf } from './align'
import type { Column } from './align'
import { joinedWords } from './drum-words'
import type { StrengthsOf } from './drum-words'
import { determines, joinedWhere, NEARLY_ALL, partOfColumn } from './parts'
import type { Part } from './parts'
import { isNote, noteNumber } from './tokens'

export type FactorKind = 'word' | 'letter' | 'number' | 'range' | 'note'

/** Something that the names of a set tell apart, by one column or by several that say the same. */
export interface Factor {
  readonly slot: string
  readonly kind: FactorKind
  /** The columns it is told by, in their order. */
  readonly columns: readonly number[]
  /** What each file has; an empty text where its name says nothing. */
  readonly values: readonly string[]
  /** Different values as they are written, in natural order. */
  readonly texts: readonly string[]
  /** The number of a value, where it is one. */
  numberOf(value: string): number | undefined
  /** The word before it in every name, if there is one, and whether nothing parts them. */
  readonly label?: string
  readonly isGlued: boolean
  rangeOf?(value: string): readonly [number, number] | undefined
}

/** A column that is alike in all names. */
export interface Constant {
  readonly column: number
  readonly text: string
  readonly kind: Column['kind']
  /** Whether it stands before a number that is glued to it or parted from it. */
  readonly isLabel: boolean
}

/**
 * Parts what varies into factors: columns that determine each other are one; crossed digits of one column are two. `strengthsOf`
 * keeps words apart that names alone would take for more of the drum's.
 */
export function factorsOf(
  columns: readonly Column[],
  strengthsOf: StrengthsOf = () => new Map(),
): { factors: Factor[]; constants: Constant[] } {
  const constants: Constant[] = []
  let parts: Part[] = []
  columns.forEach((column, at) => {
    const values = column.tokens.map((token) => (token ? keyOf(token) : ''))
    const most = constantOf(values) ?? labelOf(values, columns[at + 1])
    // The one folder of a set is where it lies, and says nothing of it.
    if (most !== undefined && column.tokens.some((token) => token?.isFolder)) return
    if (most !== undefined) {
      const next = columns[at + 1]
      constants.push({ column: at, text: column.tokens.find((token) => token && keyOf(token) === most)!.text, kind: column.kind, isLabel: column.kind === 'word' && next?.kind === 'number' && constantOf(next.tokens.map((token) => (token ? keyOf(token) : ''))) === undefined }) // prettier-ignore
    } else parts.push(...digitsOf(partOfColumn(column, at)))
  })
  parts = joinedWhere(parts, (a, b) => !mayBeNotes(a, b) && determines(a, b) && determines(b, a))
  parts = joinedWords(parts, strengthsOf)
  const labels = new Map(constants.filter(({ isLabel }) => isLabel).map(({ column, text }) => [column + 1, text.toLowerCase()]))
  const isGlued = (part: Part) => columns[part.columns[0]].tokens.every((token) => !token || token.glued)
  return { factors: parts.map((part) => ({ ...factorOf(part, labels.get(part.columns[0])), isGlued: isGlued(part) })), constants }
}

/** The one word that stands before every number of the next column, and nowhere else. */
function labelOf(values: readonly string[], next: Column | undefined): string | undefined {
  const known = new Set(values.filter(Boolean))
  const goesWith = next?.kind === 'number' && values.every((value, file) => (value === '') === (next.tokens[file] === undefined))
  return known.size === 1 && goesWith ? [...known][0] : undefined
}

/** The one value that a column has, though a few names may lack it; nothing where it varies. */
function constantOf(values: readonly string[]): string | undefined {
  const known = new Set(values.filter(Boolean))
  const [only] = known
  return known.size === 1 && values.filter((value) => value === only).length >= NEARLY_ALL * values.length ? only : undefined
}

/** Two digits of which each tens has all units are two numbers written as one. */
function digitsOf(part: Part): Part[] {
  const known = [...new Set(part.shown)]
  if (part.kind !== 'number' || !known.every((text) => /^\d\d$/.test(text))) return [part]
  const [tens, units] = [0, 1].map((place) => new Set(known.map((text) => text[place])))
  const isCrossed = tens.size > 1 && units.size > 1 && tens.size * units.size === known.length
  const numbers = known.map(Number).sort((a, b) => a - b)
  const isRun = numbers[numbers.length - 1] - numbers[0] === numbers.length - 1
  if (!isCrossed || isRun) return [part]
  return (['tens', 'units'] as const).map((digit, place) => {
    const digits = part.shown.map((text) => text[place])
    return { ...part, pieces: [{ column: part.columns[0], values: digits, shown: digits }], values: digits, shown: digits, digit }
  })
}

/** Numbers that each go with a word of their own may be the notes of drums. */
function mayBeNotes(a: Part, b: Part): boolean {
  const numbers = a.kind === 'number' ? a : b
  if (a.kind === b.kind || numbers.kind !== 'number') return a.kind === 'note' || b.kind === 'note'
  return numbers.values.every((value) => value === '' || isNote(Number(value)))
}

function factorOf(part: Part, label: string | undefined): Omit<Factor, 'isGlued'> {
  const range = rangesOf(part)
  const kind: FactorKind = range ? 'range' : kindOf(part)
  const numberOf = (value: string) => {
    if (range) return range(value)?.[0]
    if (kind === 'number') return value === '' ? undefined : Number(/\d+/.exec(value)?.[0])
    if (kind === 'letter') return value === '' ? undefined : value.charCodeAt(0) - 96
    return kind === 'note' ? noteNumber(value[0]?.toUpperCase() + value.slice(1)) : undefined
  }
  const slot = `part ${part.columns.join('+')}${part.digit ? ` ${part.digit}` : ''}`
  const texts = [...new Map(part.values.map((value, file) => [value, part.shown[file]])).values()].filter(Boolean).sort(compareNames)
  return {
    slot,
    kind,
    columns: part.columns,
    values: part.values,
    texts,
    numberOf,
    ...(label ? { label } : {}),
    ...(range ? { rangeOf: range } : {}),
  }
}

function kindOf({ values, kind }: Part): FactorKind {
  if (kind === 'note') return 'note'
  if (kind === 'number') return 'number'
  // Several numbers that say the same, or a word with its number, count by the number.
  return values.every((value) => value === '' || /^[a-z]$/.test(value)) ? 'letter' : 'word'
}

/** The lowest and highest velocity of each value, where two numbers are that in all names: ranges that meet up to the loudest. */
function rangesOf({ values, columns, kind }: Part): ((value: string) => readonly [number, number] | undefined) | undefined {
  if (columns.length !== 2 || kind !== 'number') return undefined
  const known = [...new Set(values)].filter(Boolean).map((value) => value.split(' ').map(Number))
  if (known.some((pair) => pair.length !== 2 || !(pair[0] < pair[1]))) return undefined
  const sorted = known.sort((a, b) => a[0] - b[0])
  const meets = sorted.every((pair, i) => i === 0 || pair[0] > sorted[i - 1][1])
  const last = sorted[sorted.length - 1]?.[1] ?? 0
  if (!meets || last < 100 || last > 127) return undefined
  return (value) => {
    const [low, high] = value.split(' ').map(Number)
    return Number.isFinite(high) ? [Math.max(1, low), high] : undefined
  }
}
