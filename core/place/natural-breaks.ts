/**
 * Parts sorted values into `count` runs with the least sum of squared deviations from each run's mean (W. Fisher, "On
 * grouping for maximum homogeneity", 1958). Returns half-open ranges [from, to); fewer when there are fewer values.
 */
export function naturalBreaks(sorted: readonly number[], count: number): [from: number, to: number][] {
  const n = sorted.length
  const runs = Math.min(count, n)
  if (runs < 1) return []
  const sum = prefix(sorted, (x) => x)
  const squares = prefix(sorted, (x) => x * x)
  const cost = (from: number, to: number) => squares[to] - squares[from] - (sum[to] - sum[from]) ** 2 / (to - from)
  // best[k][i]: least cost of the first i values in k runs; cut[k][i]: where the last of them begins.
  const best = [Array.from({ length: n + 1 }, (_, i) => (i === 0 ? 0 : Infinity))]
  const cut: number[][] = [[]]
  for (let k = 1; k <= runs; k++) {
    best.push(new Array<number>(n + 1).fill(Infinity))
    cut.push(new Array<number>(n + 1).fill(0))
    for (let i = k; i <= n; i++)
      for (let j = k - 1; j < i; j++) {
        const candidate = best[k - 1][j] + cost(j, i)
        if (candidate < best[k][i]) {
          best[k][i] = candidate
          cut[k][i] = j
        }
      }
  }
  const ranges: [number, number][] = []
  for (let k = runs, to = n; k > 0; to = cut[k][to], k--) ranges.unshift([cut[k][to], to])
  return ranges
}

function prefix(values: readonly number[], of: (x: number) => number): number[] {
  const sums = [0]
  for (const value of values) sums.push(sums[sums.length - 1] + of(value))
  return sums
}
