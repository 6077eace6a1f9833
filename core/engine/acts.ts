import { ACT_RECORDS, doneOf } from './memory/memory'
import type { EngineMemory } from './memory/memory'
import { DoneField, EventField } from './program/layout'

/**
 * Events number `from` to before `last`, as they acted, each with its frame: a score that gives the same samples again. Who reads on says
 * which was the last, since more may act meanwhile.
 */
export function readActs(memory: Pick<EngineMemory, 'acts' | 'done'>, from = 0, last = doneOf(memory, DoneField.acts)): Float64Array {
  const { acts } = memory
  const width = EventField.length
  const first = Math.max(from, last - ACT_RECORDS)
  const score = new Float64Array((last - first) * width)
  for (let i = first; i < last; i++) {
    const row = (i % ACT_RECORDS) * width
    score.set(acts.subarray(row, row + width), (i - first) * width)
  }
  return score
}
