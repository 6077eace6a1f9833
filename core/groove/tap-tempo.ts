/** A tap after a longer pause begins anew, ms; and of so many taps the tempo is told. */
const PAUSE_MS = 3000
const MOST_TAPS = 12

/** Taps so far, ms of any clock, with one more; those before a pause are forgotten. */
export function withTap(taps: readonly number[], atMs: number): number[] {
  const last = taps[taps.length - 1]
  return last === undefined || atMs - last > PAUSE_MS ? [atMs] : [...taps, atMs].slice(-MOST_TAPS)
}

/** The tempo of taps, beats a minute within 20..400, by the line through them (least squares); undefined of less than three. */
export function tappedTempo(taps: readonly number[]): number | undefined {
  if (taps.length < 3) return undefined
  const middle = (taps.length - 1) / 2
  const mean = taps.reduce((sum, at) => sum + at, 0) / taps.length
  const slope = taps.reduce((sum, at, i) => sum + (i - middle) * (at - mean), 0) / taps.reduce((sum, _, i) => sum + (i - middle) ** 2, 0)
  return Math.round(Math.min(400, Math.max(20, 60_000 / slope)) * 10) / 10
} // prettier-ignore
