/** Something with settings, each in words. */
export interface Item {
  readonly name: string
  readonly values: Readonly<Record<string, string>>
}

/** A setting that nearly all have alike, and those that have not. */
export interface OddOnes {
  readonly setting: string
  readonly common: string
  readonly count: number
  readonly odd: readonly Item[]
}

/** What is alike in so many is taken for meant. */
const MOST = 0.7
/** Fewer that have a setting say nothing of what is usual. */
const LEAST = 3

/** The odd ones out in any setting that most of the items that have it have alike, so that the one that was forgotten is seen. */
export function oddOnes(items: readonly Item[]): OddOnes[] {
  const settings = [...new Set(items.flatMap(({ values }) => Object.keys(values)))]
  return settings.flatMap((setting): OddOnes[] => {
    const having = items.filter(({ values }) => values[setting] !== undefined)
    if (having.length < LEAST) return []
    const counts = new Map<string, number>()
    for (const { values } of having) counts.set(values[setting], (counts.get(values[setting]) ?? 0) + 1)
    const [common, count] = [...counts].sort((a, b) => b[1] - a[1])[0]
    if (count === having.length || count < MOST * having.length - 1e-9) return []
    return [{ setting, common, count, odd: having.filter(({ values }) => values[setting] !== common) }]
  })
}
