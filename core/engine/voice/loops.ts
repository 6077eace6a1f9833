import { EdgeField } from '../program/layout'
import type { EngineState } from '../state'

/**
 * A voice whose loop ends when it is let go goes on by the clip as it was recorded: at once where that lies under the loop
 * just now, else as soon as the loop comes round to its start. Returns whether it has such a loop.
 */
export function leaveLoop(engine: EngineState, voice: number): boolean {
  const { voices: v } = engine
  if (v.tailChunk[voice] < 0 || v.loopPeriod[voice] === 0) return false
  const into = v.position[voice] - v.loopStart[voice]
  const within = into < 0 ? into : into % v.loopPeriod[voice]
  if (within < v.loopPlain[voice]) {
    v.position[voice] = v.loopStart[voice] + within
    takeTail(engine, voice, 0)
  } else {
    v.frames[voice] = v.position[voice] - within + v.loopPeriod[voice]
    v.leaves[voice] = 1
  }
  return true
}

/**
 * From frame `at` of the stretch that is being read the voice is read from its clip without the loop. That ends where its end is
 * trimmed to; a fade that would have begun before begins here, so that there is no step.
 */
export function takeTail({ voices: v }: EngineState, voice: number, at: number): void {
  const row = voice * EdgeField.length
  const end = v.edges[row + EdgeField.tailEndFrame]
  v.edges[row + EdgeField.endFrame] = end
  v.edges[row + EdgeField.outFrames] = Math.min(v.edges[row + EdgeField.tailOutFrames], end - v.position[voice])
  v.edges[row + EdgeField.tailAt] = at
  v.chunk[voice] = v.tailChunk[voice]
  v.left[voice] = v.tailLeft[voice]
  v.right[voice] = v.tailRight[voice]
  v.frames[voice] = end
  v.laidFrames[voice] = v.tailFrames[voice]
  v.levels[voice] = v.tailLevels[voice]
  v.loops[voice] = v.leaves[voice] = v.loopPeriod[voice] = 0
  v.tailChunk[voice] = -1
}
