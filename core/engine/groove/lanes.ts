import { GrooveHead, KitHead, LaneField, LanePointField, MAX_BUSES, MovedField, SectionField } from '../program/layout'
import type { EngineState } from '../state'
import { bent } from '../voice/envelope'
import { sectionRow } from './rows'

/** The buses that lanes of a groove lead are moved from now on. */
export function beginLanes(engine: EngineState): void {
  const { groove, memory, mix } = engine
  const { arena } = memory
  for (let section = 0; section < arena[groove.program + GrooveHead.sectionCount]; section++) {
    const row = sectionRow(engine, section)
    for (let i = 0; i < arena[row + SectionField.laneCount]; i++) {
      const slot = arena[groove.program + arena[row + SectionField.lanes] + i * LaneField.length + LaneField.slot]
      if (slot >= 0) mix.isLive[slot] = 1
    }
  }
}

/** Adds what the lanes of the section that plays move the mix by on the engine's frame: levels by slots of buses, dB, then what else is moved. */
export function addLanes(engine: EngineState, frame: number, sums: Float64Array): void {
  const { groove, memory } = engine
  if (groove.isPlaying === 0 || groove.program === 0) return
  const { arena } = memory
  const row = sectionRow(engine)
  const beat = groove.anchorBeat + (frame - groove.anchorFrame) / groove.framesPerBeat
  const inLap = Math.max(0, beat % arena[row + SectionField.lengthBeats])
  for (let i = 0; i < arena[row + SectionField.laneCount]; i++) {
    const lane = groove.program + arena[row + SectionField.lanes] + i * LaneField.length
    const target = targetOfLane(engine, lane)
    if (target < 0) continue
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
    sums[target] += value - arena[lane + LaneField.base]
  }
}

/** The slot of the level that a lane leads, or MAX_BUSES and the place of what else it moves; -1 where the kit has none such. */
function targetOfLane({ memory, kit }: EngineState, lane: number): number {
  const { arena } = memory
  if (arena[lane + LaneField.slot] >= 0) return arena[lane + LaneField.slot]
  const first = kit + arena[kit + KitHead.moved]
  for (let i = 0; i < arena[kit + KitHead.movedCount]; i++)
    if (arena[first + i * MovedField.length + MovedField.hash] === arena[lane + LaneField.hash]) return MAX_BUSES + i
  return -1
}
