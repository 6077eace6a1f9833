/**
 * Gains in dB that bring levels (dB) towards the highest of them: `share` 0 leaves them, 1 makes all alike. Relations that
 * are left keep their order.
 */
export function evenGains(levelsDb: readonly number[], share: number): number[] {
  const known = levelsDb.filter(Number.isFinite)
  const highest = Math.max(...known)
  return levelsDb.map((level) => (Number.isFinite(level) ? share * (highest - level) : 0))
}
