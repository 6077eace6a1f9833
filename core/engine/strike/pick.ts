import { pickCodes } from '../program/codes'
import { BandField, Head, TurnField } from '../program/layout'
import type { EngineState } from '../state'
import { chance, Purpose, shuffledTurn } from './chance'
import { hasSeldom, seldomTurn } from './seldom'

/** The place of the band of `now.bands` that answers a strike: the last that begins at or below its velocity. -1 without bands. */
export function pickBand({ memory, now }: EngineState, count: number): number {
  let band = -1
  while (band + 1 < count && memory.arena[now.bands + (band + 1) * BandField.length + BandField.fromVelocity] <= now.velocity) band++
  return band
}

/**
 * How much the next louder band sounds beside `band`, 0..1: it fades in over the `blendVelocities` below its edge, never
 * wider than the band it fades over.
 */
export function blendAbove({ memory, now }: EngineState, band: number, count: number): number {
  if (band < 0 || band + 1 >= count) return 0
  const { arena } = memory
  const here = now.bands + band * BandField.length
  const above = here + BandField.length
  const edge = arena[above + BandField.fromVelocity]
  const width = Math.min(arena[above + BandField.blendVelocities], edge - arena[here + BandField.fromVelocity])
  return width > 0 && now.velocity > edge - width ? (now.velocity - edge + width) / width : 0
}

/** The turn of a band, by its place, for the strike numbered `strike` by the counter in use. -1 for an empty band. */
export function pickTurn(engine: EngineState, bandIndex: number, strike: number): number {
  const { memory, now, deck } = engine
  const { arena } = memory
  const band = now.bands + bandIndex * BandField.length
  const turns = arena[band + BandField.turnCount]
  if (turns < 2) return turns - 1
  if (now.pick === pickCodes.cycle) return strike % turns
  deck.seed = engine.seed
  deck.key = arena[now.program + Head.turnsHash] | 0
  deck.list = bandIndex
  deck.count = turns
  deck.turns = now.program + arena[band + BandField.turns]
  if (now.pick === pickCodes.random) return weightedTurn(engine)
  if (hasSeldom(deck)) return seldomTurn(deck, strike)
  const round = Math.floor(strike / turns)
  return shuffledTurn(deck, round, strike - round * turns)
}

/** A turn by chance, as often as its weight says. */
function weightedTurn({ deck, now }: EngineState): number {
  const { arena, turns, count } = deck
  const draw = chance(deck.seed, deck.key, now.turnStrike, Purpose.turn)
  let total = 0
  for (let i = 0; i < count; i++) total += arena[turns + i * TurnField.length + TurnField.weight]
  if (total <= 0) return Math.floor(draw * count)
  let left = draw * total
  for (let i = 0; i < count; i++) {
    left -= arena[turns + i * TurnField.length + TurnField.weight]
    if (left < 0) return i
  }
  return count - 1
}
