import { keyOf } from './align'
import type { Column } from './align'

/** What one column holds in each name: for comparing, and as it is written. */
interface Piece {
  readonly column: number
  readonly values: readonly string[]
  readonly shown: readonly string[]
  readonly isFolder?: boolean
}

/** Something of the names, by one column or by several that say the same. */
export interface Part {
  pieces: readonly Piece[]
  columns: readonly number[]
  values: readonly string[]
  shown: readonly string[]
  kind: Column['kind']
  digit?: 'tens' | 'units'
  isFolder?: boolean
}

/** Names that lack a word that nearly all have are no other kind of names. */
export const NEARLY_ALL = 0.9

export function partOfColumn(column: Column, at: number): Part {
  const values = column.tokens.map((token) => (token ? keyOf(token) : ''))
  const shown = column.tokens.map((token) => token?.text ?? '')
  return partOf([{ column: at, values, shown, isFolder: column.tokens.some((token) => token?.isFolder) }], column.kind)
}

/** Nearly all files: one that is called wrongly hides nothing. */
const NEARLY = 0.98

/** Whether what a part says fixes what the other says. */
export function determines(a: { readonly values: readonly string[] }, b: { readonly values: readonly string[] }): boolean {
  const pairs = new Map<string, Map<string, number>>()
  a.values.forEach((value, file) => {
    const own = pairs.get(value) ?? new Map<string, number>()
    pairs.set(value, own.set(b.values[file], (own.get(b.values[file]) ?? 0) + 1))
  })
  let kept = 0
  for (const own of pairs.values()) kept += Math.max(...own.values())
  return kept >= NEARLY * a.values.length
}

/** Joins each part to the first one before it that it is one with. */
export function joinedWhere(parts: readonly Part[], isOne: (a: Part, b: Part) => boolean): Part[] {
  const out: Part[] = []
  for (const part of parts) {
    const at = out.findIndex((one) => isOne(one, part))
    if (at < 0) out.push(part)
    else {
      const one = out[at]
      // A folder that goes with the names in it says nothing more.
      out[at] =
        one.isFolder && !part.isFolder && determines(part, one)
          ? part
          : partOf([...one.pieces, ...part.pieces], one.kind === part.kind ? one.kind : 'word')
    }
  }
  return out
}

/** Puts pieces together in the order of their columns. */
export function partOf(given: readonly Piece[], kind: Column['kind']): Part {
  const pieces = [...given].sort((a, b) => a.column - b.column)
  const of = (texts: (piece: Piece) => readonly string[]) =>
    pieces[0].values.map((_, file) =>
      pieces
        .map((piece) => texts(piece)[file])
        .filter(Boolean)
        .join(' '),
    )
  const isFolder = pieces.every((piece) => piece.isFolder)
  return {
    pieces,
    columns: pieces.map(({ column }) => column),
    values: of(({ values }) => values),
    shown: of(({ shown }) => shown),
    kind,
    isFolder,
  }
}
