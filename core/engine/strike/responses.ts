import { bent } from '../voice/envelope'
import { Head, KitField, OFFSETS, ResponseField, responseFromCodes } from '../program/layout'
import type { EngineState } from '../state'
import { chance, Purpose } from './chance'

/** Sums what all responses of the pad that is struck add for one ray, into `engine.offsets`. */
export function gatherOffsets(engine: EngineState, ray: number): void {
  const { offsets, now } = engine
  const { arena, kit } = engine.memory
  const { program } = now
  for (let i = 0; i < OFFSETS; i++) offsets[i] = 0
  const first = program + arena[program + Head.responses]
  for (let i = 0; i < arena[program + Head.responseCount]; i++) {
    const at = first + i * ResponseField.length
    const only = arena[at + ResponseField.ray]
    if (only >= 0 && only !== ray) continue
    const amount = arena[at + ResponseField.amount]
    const to = arena[at + ResponseField.to]
    switch (arena[at + ResponseField.from]) {
      case responseFromCodes.velocity:
        offsets[to] += amount * (bent(0, 1, now.velocity / 127, arena[at + ResponseField.k]) - 1)
        break
      case responseFromCodes.chance: {
        const purpose = Purpose.response + 256 * (arena[at + ResponseField.draw] + 1)
        offsets[to] += amount * (2 * chance(kit[KitField.seed] | 0, arena[program + Head.padHash] | 0, now.padStrike, purpose) - 1)
        break
      }
      case responseFromCodes.note:
        offsets[to] += (amount * (now.note - 60)) / 12
        break
    }
  }
}
