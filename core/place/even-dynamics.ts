/** A band as it was measured: the middle of its velocities, 1..127, and how loud its turns are there on average, LUFS. */
export interface MeasuredBand {
  readonly velocity: number
  readonly loudness: number
}

/** Harder is never quieter: an even curve rises by so much at least, dB for each velocity. */
const LEAST_RISE = 0.03
/** Changes that nobody hears are not made, dB. */
const LEAST_CHANGE = 0.1
/** What one action may change a band by, dB. */
const MOST_CHANGE = 18

/**
 * By how much each band's level has to change so that loudness rises evenly over velocity: onto the straight line that lies
 * nearest to all of them (least squares), so that the whole keeps its range and its level. 0 for bands that cannot be measured
 * (-Infinity) and where there is nothing to even.
 */
export function evenDynamics(bands: readonly MeasuredBand[]): number[] {
  const known = bands.filter(({ loudness }) => Number.isFinite(loudness))
  if (known.length < 2) return bands.map(() => 0)
  const mean = (of: (band: MeasuredBand) => number) => known.reduce((sum, band) => sum + of(band), 0) / known.length
  const [middle, level] = [mean(({ velocity }) => velocity), mean(({ loudness }) => loudness)]
  const spread = known.reduce((sum, { velocity }) => sum + (velocity - middle) ** 2, 0)
  const joint = known.reduce((sum, { velocity, loudness }) => sum + (velocity - middle) * (loudness - level), 0)
  const rise = Math.max(LEAST_RISE, spread > 0 ? joint / spread : 0)
  return bands.map(({ velocity, loudness }) => {
    if (!Number.isFinite(loudness)) return 0
    const change = Math.min(MOST_CHANGE, Math.max(-MOST_CHANGE, level + rise * (velocity - middle) - loudness))
    return Math.abs(change) < LEAST_CHANGE ? 0 : Math.round(change * 10) / 10
  })
}
