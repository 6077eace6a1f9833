import { latestNumbers, NO_PAD, sourceCodes } from '../program/codes'
import { ResponseField } from '../program/layout'
import type { EngineState } from '../state'
import { chance, Purpose } from './chance'
import { addHeld, shareOfRate } from './responses'

/** What the mix goes by of the strike that came last stands among the controls: as it was before the first one, nothing is moved. */
export function createLatest(controls: Float64Array): void {
  controls[latestNumbers.velocity] = 1
  controls[latestNumbers.padSlot] = NO_PAD
}

/** The strike that was decided is the latest one from here on. */
export function rememberStrike({ controls, now, sampleRateHz }: EngineState): void {
  controls[latestNumbers.velocity] = now.velocity / 127
  controls[latestNumbers.note] = now.note < 0 ? 0 : (now.note - 60) / 12
  controls[latestNumbers.turn] = now.turns > 1 ? now.turn / (now.turns - 1) : 0
  controls[latestNumbers.strikeRate] = shareOfRate(now.sinceLast, sampleRateHz)
  controls[latestNumbers.padSlot] = now.padSlot
  controls[latestNumbers.count]++
}

const x = new Float64Array(1)

/** Adds what chance moves of the mix by a row of the kit, drawn anew with each strike; nothing for what is moved by something else. */
export function addChance({ memory, controls, seed }: EngineState, at: number, sums: Float64Array): void {
  const { arena } = memory
  const strikes = controls[latestNumbers.count]
  if (arena[at + ResponseField.from] !== sourceCodes.chance || strikes === 0) return
  const purpose = Purpose.response + 256 * (arena[at + ResponseField.draw] + 1)
  x[0] = arena[at + ResponseField.amount] * (2 * chance(seed, KIT_HASH, strikes - 1, purpose) - 1)
  addHeld(x, arena, at, sums)
}

/** Stands for the kit where chance asks for whom it draws. */
const KIT_HASH = 0
