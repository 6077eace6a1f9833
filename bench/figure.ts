/** One measured number. Where there is a peer, `value` is a ratio measured in the same run, above 1 when we are better. */
export interface Figure {
  readonly value: number
  readonly unit: string
  readonly peer?: string
  /** Least and most over the runs. */
  readonly spread?: readonly [number, number]
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return (sorted[(sorted.length - 1) >> 1] + sorted[sorted.length >> 1]) / 2
}

export function spreadOf(values: readonly number[]): [number, number] {
  return [Math.min(...values), Math.max(...values)]
}
