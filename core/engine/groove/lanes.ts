import { GrooveHead, LaneField, LanePointField, SectionField } from '../program/layout'
import type { EngineState } from '../state'
import { bent } from '../voice/envelope'
import { sectionRow } from './rows'

/** The buses that lanes of a groove lead are moved from now on. */
export function beginLanes(engine: EngineState): void {
  const { groove, memory, mix } = engine
  const { arena } = memory
  for (let section = 0; section < arena[groove.program + GrooveHead.sectionCount]; section++) {
    const row = sectionRow(engine, section)
    for (let i = 0; i < arena[row + SectionField.laneCount]; i++)
      mix.isLive[arena[groove.program + arena[row + SectionField.lanes] + i * LaneField.length + LaneField.slot]] = 1
  }
}

/** Adds what the lanes of the section that plays move levels by on the engine's frame, by slots of buses, dB. */
export function addLanes(engine: EngineState, frame: number, sums: Float64Array): void {
  const { groove, memory } = engine
  if (groove.isPlaying === 0 || groove.program === 0) return
  const { arena } = memory
  const row = sectionRow(engine)
  const beat = groove.anchorBeat + (frame - groove.anchorFrame) / groove.framesPerBeat
  const inLap = Math.max(0, beat % arena[row + SectionField.lengthBeats])
  for (let i = 0; i < arena[row + SectionField.laneCount]; i++) {
    const lane = groove.program + arena[row + SectionField.lanes] + i * LaneField.length
    const first = groove.program + arena[lane + LaneField.points]
    const count = arena[lane + LaneField.pointCount]
    let place = 0
    while (place < count && arena[first + place * LanePointField.length + LanePointField.beat] <= inLap) place++
    const to = first + Math.min(place, count - 1) * LanePointField.length
    let value = arena[to + LanePointField.value]
    if (place > 0 && place < count) {
      const from = to - LanePointField.length
      const share = (inLap - arena[from + LanePointField.beat]) / (arena[to + LanePointField.beat] - arena[from + LanePointField.beat])
      value = bent(arena[from + LanePointField.value], value, share, arena[to + LanePointField.k])
    }
    sums[arena[lane + LaneField.slot]] += value - arena[lane + LaneField.base]
  }
}
