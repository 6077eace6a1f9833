import type { Token } from './tokens'

/** One place in all names: what each of them has there, if anything. */
export interface Column {
  readonly kind: Token['kind']
  readonly tokens: readonly (Token | undefined)[]
}

interface Growing {
  kind: Token['kind']
  tokens: (Token | undefined)[]
  /** How often each text stands here, in small letters. */
  texts: Map<string, number>
  count: number
}

const GAP = -0.4
/** Names of more things than this are laid by their kinds of tokens alone. */
const MOST_BEGINS = 150
const ALIKE = 0.5
const SAME = 3

/**
 * Lays names under each other, folders by themselves. Names that begin with the same word and have the same kinds of tokens lie place for place; others are laid by the alignment with
 * the most texts in common (S. Needleman and C. Wunsch, 1970), the most frequent kinds first.
 */
export function alignNames(names: readonly (readonly Token[])[]): Column[] {
  const [folders, files] = [true, false].map((isFolder) =>
    names.map((tokens) => tokens.filter((token) => (token.isFolder ?? false) === isFolder)),
  )
  return [...aligned(folders!), ...aligned(files!)]
}

function aligned(names: readonly (readonly Token[])[]): Growing[] {
  const kindsOf = (tokens: readonly Token[]) => tokens.map(({ kind }) => kind[0]).join('')
  // What begins alike is called alike: of others the same place may hold something else, as the second word of “red buoy” and “keel soft”.
  const beginOf = ([first]: readonly Token[]) => (first?.kind === 'word' ? keyOf(first) : '')
  const areFew = new Set(names.map(beginOf)).size <= MOST_BEGINS
  const shapes = new Map<string, number[]>()
  names.forEach((tokens, file) => {
    const shape = `${kindsOf(tokens)} ${areFew ? beginOf(tokens) : ''}`
    shapes.set(shape, [...(shapes.get(shape) ?? []), file])
  })
  let columns: Growing[] = []
  for (const files of [...shapes.values()].sort((a, b) => b.length - a.length)) {
    const own = names[files[0]].map((first, place): Growing => {
      const tokens: (Token | undefined)[] = new Array<Token | undefined>(names.length).fill(undefined)
      for (const file of files) tokens[file] = names[file][place]
      return { kind: first.kind, tokens, texts: textsOf(tokens), count: files.length }
    })
    columns = columns.length === 0 ? own : merged(columns, own)
  }
  return columns
}

function textsOf(tokens: readonly (Token | undefined)[]): Map<string, number> {
  const texts = new Map<string, number>()
  for (const token of tokens) if (token) texts.set(keyOf(token), (texts.get(keyOf(token)) ?? 0) + 1)
  return texts
}

/** What counts as the same text: numbers by their value, words in small letters. */
export function keyOf({ kind, text }: Token): string {
  return kind === 'number' ? String(Number(text)) : text.toLowerCase()
}

function likeness(column: Growing, other: Growing): number {
  if (column.kind !== other.kind) return -Infinity
  let shared = 0
  for (const [text, count] of other.texts) if (column.texts.has(text)) shared += count
  return ALIKE + (SAME * shared) / other.count
}

function merged(columns: readonly Growing[], own: readonly Growing[]): Growing[] {
  const [n, m] = [columns.length, own.length]
  const best = Array.from({ length: n + 1 }, (_, i) => Array.from({ length: m + 1 }, (_, j) => (i === 0 ? j * GAP : j === 0 ? i * GAP : 0)))
  for (let i = 1; i <= n; i++)
    for (let j = 1; j <= m; j++)
      best[i][j] = Math.max(best[i - 1][j - 1] + likeness(columns[i - 1], own[j - 1]), best[i - 1][j] + GAP, best[i][j - 1] + GAP)
  const out: Growing[] = []
  for (let i = n, j = m; i > 0 || j > 0;) {
    const both = i > 0 && j > 0 ? best[i - 1][j - 1] + likeness(columns[i - 1], own[j - 1]) : -Infinity
    const lacks = i > 0 && best[i][j] === best[i - 1][j] + GAP
    const hasMore = j > 0 && best[i][j] === best[i][j - 1] + GAP
    // Of two places as good, the earlier: what a name lacks, it mostly lacks at its end, and what it has more too; numbers stand behind words.
    const isNumberLast = hasMore && own[j - 1].kind === 'number' && columns[i - 1]?.kind !== 'number'
    if (j === 0 || (lacks && !isNumberLast)) out.unshift(columns[--i])
    else if (hasMore) out.unshift(own[--j])
    else if (both > -Infinity && best[i][j] === both) out.unshift(joined(columns[--i], own[--j]))
    else out.unshift(own[--j])
  }
  return out
}

function joined(column: Growing, other: Growing): Growing {
  const tokens = column.tokens.map((token, file) => token ?? other.tokens[file])
  return { kind: column.kind, tokens, texts: textsOf(tokens), count: column.count + other.count }
}
