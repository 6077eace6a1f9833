import { determines } from './parts'
import type { Factor } from './factors'
import type { Likeness } from './types'

/** Two files that differ in one factor alone, and two that differ in what counts on besides. */
interface Comparison {
  readonly file: number
  readonly same: number
  readonly other: number
}

const MOST_COMPARISONS = 14

/**
 * Comparisons that tell whether files that differ in a factor alone are the same strike, as microphones hear it: then they
 * are more alike than with another take. None where nothing counts on.
 */
function comparisonsOf(factors: readonly Factor[], factor: Factor): Comparison[] {
  const rest = factors.filter((other) => other !== factor && !determines(other, factor))
  const counting = rest.filter(({ kind }) => kind !== 'word').sort((a, b) => b.texts.length - a.texts.length)[0] ?? rest[rest.length - 1]
  if (!counting) return []
  const fixed = rest.filter((other) => other !== counting)
  const keyOf = (file: number, of: readonly Factor[]) => of.map(({ values }) => values[file]).join('|')
  const groups = new Map<string, number[]>()
  factor.values.forEach((_, file) => {
    const key = keyOf(file, fixed)
    groups.set(key, [...(groups.get(key) ?? []), file])
  })
  const found: Comparison[] = []
  for (const group of groups.values())
    for (const file of group) {
      const others = group.filter((one) => factor.values[one] !== factor.values[file])
      const same = others.find((one) => counting.values[one] === counting.values[file])
      const other = others.find((one) => same !== undefined && factor.values[one] === factor.values[same] && counting.values[one] !== counting.values[file]) // prettier-ignore
      if (same !== undefined && other !== undefined) found.push({ file, same, other })
    }
  const step = Math.max(1, Math.floor(found.length / MOST_COMPARISONS))
  return found.filter((_, i) => i % step === 0).slice(0, MOST_COMPARISONS)
}

/** The pairs of files whose likeness would tell which factors are microphones. */
export function pairsOf(factors: readonly Factor[]): [number, number][] {
  return factors.flatMap((factor) => comparisonsOf(factors, factor).flatMap(({ file, same, other }): [number, number][] => [[file, same], [file, other]])) // prettier-ignore
}

const FEWEST = 4
/** What is alike by no more than this is alike anyway. */
const LEAST_MORE = 0.005

/**
 * How sure it is that files that differ in a factor alone are the same strike: the mean of how much more alike they are
 * than with another take, over its own error (Student, 1908), held within 0..1 at 1 and 4 errors. Nothing where too few were heard.
 */
export function sameStrike(factors: readonly Factor[], factor: Factor, likeness: Likeness): number | undefined {
  const more = comparisonsOf(factors, factor).flatMap(({ file, same, other }) => {
    const [a, b] = [likeness(file, same), likeness(file, other)]
    return a === undefined || b === undefined ? [] : [a - b]
  })
  if (more.length < FEWEST) return undefined
  const mean = more.reduce((sum, one) => sum + one, 0) / more.length
  const spread = Math.sqrt(more.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (more.length - 1))
  const errors = mean / (spread / Math.sqrt(more.length) + 1e-6)
  return mean < LEAST_MORE ? 0 : Math.max(0, Math.min(1, (errors - 1) / 3))
}
