import { BandField, TurnField } from '../program/layout'
import type { EngineState } from '../state'

/** The band that a strike asks for, by its own hash or by that of one of its turns; -1 where it leaves it to the velocity. */
export function forcedBand(engine: EngineState, count: number): number {
  const { memory, now } = engine
  if (now.wantsBand < 0 && now.wantsTurn < 0) return -1
  for (let band = 0; band < count; band++) {
    const row = now.bands + band * BandField.length
    if (now.wantsBand >= 0 ? memory.arena[row + BandField.hash] === now.wantsBand : forcedTurn(engine, row) >= 0) return band
  }
  return -1
}

/** The turn of a band that a strike asks for; -1 where it asks for none of it. */
export function forcedTurn({ memory, now }: EngineState, band: number): number {
  const { arena } = memory
  if (now.wantsTurn < 0) return -1
  const turns = now.program + arena[band + BandField.turns]
  for (let turn = 0; turn < arena[band + BandField.turnCount]; turn++)
    if (arena[turns + turn * TurnField.length + TurnField.hash] === now.wantsTurn) return turn
  return -1
}
