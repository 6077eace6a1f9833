interface Box {
  /** From the first peak to the last, px, after so much room before it. */
  readonly width: number
  readonly edge: number
  readonly height: number
}

const MARGIN_PX = 4
const LEAST_PX = 0.5
const LEAST_PEAK = 0.001

/** The path of a wave from its peaks, the same above and below the middle; the highest peak fills the height. */
export function mirroredOutline(peaks: ArrayLike<number>, { width, edge, height }: Box): string {
  const places = Array.from({ length: peaks.length }, (_, i) => i)
  const highest = places.reduce((most, i) => Math.max(most, peaks[i]), LEAST_PEAK)
  const at = (i: number, way: 1 | -1) => {
    const half = Math.max(LEAST_PX, (peaks[i] / highest) * (height / 2 - MARGIN_PX))
    return `${(edge + (i / Math.max(1, peaks.length - 1)) * width).toFixed(1)} ${(height / 2 - way * half).toFixed(1)}`
  }
  return `M${[...places.map((i) => at(i, 1)), ...places.reverse().map((i) => at(i, -1))].join('L')}Z`
}

/** The highest sample of each of so many columns of a stretch. */
export function peaksOf(samples: Float32Array, from: number, to: number, columns: number): Float32Array {
  const step = (to - from) / columns
  return Float32Array.from({ length: columns }, (_, column) => {
    let most = 0
    for (let i = Math.floor(from + column * step); i < from + (column + 1) * step; i++) most = Math.max(most, Math.abs(samples[i] ?? 0))
    return most
  })
}
