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
