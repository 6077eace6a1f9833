/** Two groups that were joined, by a member of each, and how unlike they were. */
export interface Join {
  readonly one: number
  readonly other: number
  readonly unlike: number
}

/**
 * Joins what is alike, from the most alike on: the two groups that are least unlike on the mean of all their pairs
 * (average linkage, R. Sokal and C. Michener 1958), until one group is left. `count` things give `count - 1` joins, each
 * at least as unlike as the one before.
 */
export function joinsOf(count: number, unlike: (a: number, b: number) => number): Join[] {
  const between = Array.from({ length: count }, () => new Float32Array(count).fill(Infinity))
  for (let a = 0; a < count; a++) for (let b = a + 1; b < count; b++) between[a][b] = between[b][a] = unlike(a, b)
  const sizes = new Uint32Array(count).fill(1)
  const nearest = between.map(leastOf)
  const joins: Join[] = []
  while (joins.length < count - 1) {
    let one = -1
    for (let i = 0; i < count; i++)
      if (sizes[i] > 0 && nearest[i] >= 0 && (one < 0 || between[i][nearest[i]] < between[one][nearest[one]])) one = i
    const other = nearest[one]
    joins.push({ one, other, unlike: between[one][other] })
    for (let i = 0; i < count; i++) {
      if (i === one || i === other || sizes[i] === 0) continue
      const mean = (between[one][i] * sizes[one] + between[other][i] * sizes[other]) / (sizes[one] + sizes[other])
      between[one][i] = between[i][one] = mean
      between[other][i] = between[i][other] = Infinity
      if (nearest[i] === one || nearest[i] === other) nearest[i] = leastOf(between[i])
    }
    sizes[one] += sizes[other]
    sizes[other] = 0
    between[one][other] = between[other][one] = Infinity
    nearest[one] = leastOf(between[one])
  }
  return joins
}

function leastOf(row: Float32Array): number {
  let least = -1
  for (let i = 0; i < row.length; i++) if (row[i] < (least < 0 ? Infinity : row[least])) least = i
  return least
}

/** The groups after the first so many joins, each with its members in order, in the order of their first. */
export function groupsAfter(count: number, joins: readonly Join[], made: number): number[][] {
  const groups: (number[] | undefined)[] = Array.from({ length: count }, (_, i) => [i])
  for (const { one, other } of joins.slice(0, made)) {
    groups[one] = [...groups[one]!, ...groups[other]!]
    groups[other] = undefined
  }
  const left = groups.filter((group) => group !== undefined)
  return left.map((group) => group.sort((a, b) => a - b)).sort((a, b) => a[0] - b[0])
}

/** What is less unlike is one thing, what is more is two; between them the widest gap decides. dB, as `unlikeness` and `hitUnlikeness` say. */
const SURELY_ONE = 3
const SURELY_TWO = 6
const USUAL = 4.8
const FAR = 1.6

/** How many joins bring together what is one thing. */
export function dividingJoin(joins: readonly Join[]): number {
  let best = { made: 0, worth: -1 }
  for (let made = 0; made <= joins.length; made++) {
    const low = Math.max(SURELY_ONE, joins[made - 1]?.unlike ?? 0)
    const high = Math.min(SURELY_TWO, joins[made]?.unlike ?? Infinity)
    if (high < low) continue
    const away = ((low + high) / 2 - USUAL) / FAR
    const worth = (high - low) * Math.exp(-0.5 * away * away)
    if (worth > best.worth) best = { made, worth }
  }
  return best.made
}
