import { BandField, BeadField, TurnField } from '../program/layout'
import type { EngineState } from '../state'

/** The band that a bead asks for, by its own id or by that of one of its turns; -1 where it leaves it to the velocity. */
export function forcedBand(engine: EngineState, count: number): number {
  const { memory, now } = engine
  if (now.bead === 0) return -1
  const { arena } = memory
  const bandHash = arena[now.bead + BeadField.bandHash]
  for (let band = 0; band < count; band++) {
    const row = now.bands + band * BandField.length
    if (bandHash >= 0 ? arena[row + BandField.hash] === bandHash : forcedTurn(engine, row) >= 0) return band
  }
  return -1
}

/** The turn of a band that a bead asks for; -1 where it asks for none of it. */
export function forcedTurn({ memory, now }: EngineState, band: number): number {
  const { arena } = memory
  const turnHash = now.bead === 0 ? -1 : arena[now.bead + BeadField.turnHash]
  if (turnHash < 0) return -1
  const turns = now.program + arena[band + BandField.turns]
  for (let turn = 0; turn < arena[band + BandField.turnCount]; turn++)
    if (arena[turns + turn * TurnField.length + TurnField.hash] === turnHash) return turn
  return -1
}
