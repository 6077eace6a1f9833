import { ACT_RECORDS } from './memory/memory'
import type { EngineMemory } from './memory/memory'
import { EventField, StatusField } from './program/layout'

/** Events number `from` to the last, as they acted, each with its frame: a score that gives the same samples again. */
export function readActs({ acts, status }: Pick<EngineMemory, 'acts' | 'status'>, from = 0): Float64Array {
  const width = EventField.length
  const last = status[StatusField.actCount]
  const first = Math.max(from, last - ACT_RECORDS)
  const score = new Float64Array((last - first) * width)
  for (let i = first; i < last; i++) {
    const row = (i % ACT_RECORDS) * width
    score.set(acts.subarray(row, row + width), (i - first) * width)
  }
  return score
}
