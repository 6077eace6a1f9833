import { strikesOver } from './gestures'
import type { Strikes } from './gestures'

/** What a line leaves under water: strikes that belong to stronger ones, and faint ones. */
export interface UnderLine {
  readonly hits: number
  /** As sudden as those over it, but in the wake of a stronger strike. */
  readonly aftershocks: number
  readonly faint: number
}

/** What is fainter than this is the restlessness of the room. */
const FAINT = 0.25

export function underLine(found: Strikes, waterLine: number, minGapSeconds: number, sampleRateHz: number): UnderLine {
  const hits = strikesOver(found, waterLine, minGapSeconds * sampleRateHz)
  const over = new Set(hits)
  const under = found.strikes.filter((strike) => !over.has(strike) && strike.strength >= FAINT)
  const aftershocks = under.filter(({ strength }) => strength >= waterLine).length
  return { hits: hits.length, aftershocks, faint: under.length - aftershocks }
}

/** The same as a sentence. */
export function lineWords({ hits, aftershocks, faint }: UnderLine): string {
  const there = hits === 1 ? '1 hit' : `${hits} hits`
  const under = aftershocks + faint
  if (under === 0) return `${there}; nothing weaker lies under the line.`
  const weaker = under === 1 ? '1 weaker one' : `${under} weaker ones`
  if (aftershocks > 0 && faint > 0) return `${there}; ${weaker} under the line: ${aftershocks} aftershocks, ${faint} faint.`
  const lie = under === 1 ? 'lies' : 'lie'
  return `${there}; ${weaker} ${lie} under the line: ${faint > 0 ? 'faint' : 'echoes and aftershocks'}.`
}
