const FEWEST = 4
const ALIKE_DB = 0.5

/**
 * Whether takes look as if each had been brought to one peak before: then their level no longer tells how hard each
 * strike was. `peaksDb` in dB; of fewer than four nothing is said.
 */
export function looksLevelled(peaksDb: readonly number[]): boolean {
  const known = peaksDb.filter(Number.isFinite)
  return known.length >= FEWEST && Math.max(...known) - Math.min(...known) < ALIKE_DB
}
