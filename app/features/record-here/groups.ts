interface Placed {
  readonly marker: { readonly frame: number }
}

/** Takes in groups between the borders of a guided pass, in their order; all in one group without borders. */
export function groupsOf<T extends Placed>(takes: readonly T[], borderSeconds: readonly number[], sampleRateHz: number): T[][] {
  return Array.from({ length: borderSeconds.length + 1 }, (_, i) => {
    const from = (borderSeconds[i - 1] ?? 0) * sampleRateHz
    const to = (borderSeconds[i] ?? Infinity) * sampleRateHz
    return takes.filter(({ marker }) => marker.frame >= from && marker.frame < to)
  })
}
