import { determines, joinedWhere, NEARLY_ALL, partOf } from './parts'
import type { Part } from './parts'

/** Of which drums that have several words these say how hard each was struck, by what is heard of the files. */
export type StrengthsOf = (drums: readonly string[], words: readonly string[]) => ReadonlyMap<string, boolean>

/**
 * Words that follow from other words are more of the same name; those that are crossed with others, or say how hard these were
 * struck, stay apart from them.
 */
export function joinedWords(given: readonly Part[], strengthsOf: StrengthsOf): Part[] {
  const areApart = (a: Part, b: Part) => areCrossed(a, b) || [...strengthsOf(a.values, b.values).values()].includes(true)
  const areWords = (a: Part, b: Part) => a.kind === 'word' && b.kind === 'word' && isNear(a, b)
  const joined = joinedWhere(given, (a, b) => areWords(a, b) && !areApart(a, b) && (determines(a, b) || determines(b, a) || isMore(a, b)))
  const parts = withOwnWords(joined, (a, b) => areWords(a, b) && areApart(a, b), strengthsOf)
  return joinedWhere(parts, (a, b) => areWords(a, b) && areInTurn(a, b) && parts.some((base) => areApart(base, a) && areApart(base, b)))
}

const isNear = (a: Part, b: Part) => a.columns.some((one) => b.columns.some((other) => Math.abs(one - other) === 1))

/** What each value of a part goes with in another, where both say something. */
function beside(a: Part, b: Part): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>()
  a.values.forEach((value, file) => {
    if (value === '' || b.values[file] === '') return
    found.set(value, (found.get(value) ?? new Set()).add(b.values[file]))
  })
  return found
}

/** Whether two values of one part both go with two of the other, as drums and strengths do, though other names lack one of them. */
function areCrossed(a: Part, b: Part): boolean {
  const all = [...beside(a, b).values()]
  return all.some((one, i) => all.slice(0, i).some((other) => [...one].filter((value) => other.has(value)).length > 1))
}

/** Whether no name has both, and each is missing in some. */
function areInTurn(a: Part, b: Part): boolean {
  return a.values.includes('') && b.values.includes('') && a.values.every((value, file) => value === '' || b.values[file] === '')
}

/**
 * Where words are apart, one that goes with one value of the part beside it alone is more of that, as of “red buoy” beside “keel soft”;
 * so are several that are no strengths of it.
 */
function withOwnWords(parts: readonly Part[], areApart: (a: Part, b: Part) => boolean, strengthsOf: StrengthsOf): Part[] {
  const out = [...parts]
  for (const [i, a] of out.entries())
    for (const [k, b] of out.entries()) {
      if (i >= k || !areApart(a, b)) continue
      const [there, back] = [beside(a, b), beside(b, a)]
      const heard = strengthsOf(a.values, b.values)
      const isOwn = (file: number) => {
        const [value, word] = [a.values[file], b.values[file]]
        if (value === '' || word === '' || back.get(word)!.size > 1) return false
        return (
          there.get(value)!.size === 1 || (heard.get(value) === false && [...there.get(value)!].every((one) => back.get(one)!.size === 1))
        )
      }
      if (!a.values.some((_, file) => isOwn(file))) continue
      const both = partOf([...a.pieces, ...b.pieces], 'word')
      out[i] = { ...a, values: a.values.map((value, file) => (isOwn(file) ? both.values[file] : value)), shown: a.shown.map((text, file) => (isOwn(file) ? both.shown[file] : text)) } // prettier-ignore
      out[k] = { ...b, values: b.values.map((value, file) => (isOwn(file) ? '' : value)), shown: b.shown.map((text, file) => (isOwn(file) ? '' : text)) } // prettier-ignore
    }
  return out
}

/** A word that some names have beside another and that does not go with all of those makes more of it, as “very” does. */
function isMore(a: Part, b: Part): boolean {
  if (!a.values.includes('') && !b.values.includes('')) return false
  const count = (values: readonly string[]) => new Set(values).size
  return count(a.values.map((value, file) => `${value}|${b.values[file]}`)) < NEARLY_ALL * count(a.values) * count(b.values)
}
