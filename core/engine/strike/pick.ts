import { chance, Purpose, shuffledTurn } from './chance'
import { pickCodes } from '../program/codes'
import { BandField, Head, TurnField } from '../program/layout'
import { hasSeldom, seldomTurn } from './seldom'
import type { EngineState } from '../state'

/** The index of the band that answers a strike: the last that begins at or below its velocity. -1 without bands. */
export function pickBand(arena: Float64Array, bands: number, bandCount: number, velocity: number): number {
  let band = -1
  while (band + 1 < bandCount && arena[bands + (band + 1) * BandField.length + BandField.fromVelocity] <= velocity) band++
  return band
}

/**
 * How much the next louder band sounds beside `band` at this velocity, 0..1: it fades in over the `blendVelocities`
 * below its edge, never wider than the band it fades over.
 */
export function blendAbove(arena: Float64Array, bands: number, bandCount: number, band: number, velocity: number): number {
  if (band < 0 || band + 1 >= bandCount) return 0
  const here = bands + band * BandField.length
  const above = here + BandField.length
  const edge = arena[above + BandField.fromVelocity]
  const width = Math.min(arena[above + BandField.blendVelocities], edge - arena[here + BandField.fromVelocity])
  return width > 0 && velocity > edge - width ? (velocity - edge + width) / width : 0
}

/** The turn of a band for the strike numbered `strike` by the counter in use. -1 for an empty band. */
export function pickTurn(engine: EngineState, band: number, bandIndex: number, pick: number, strike: number): number {
  const arena = engine.memory.arena
  const { program, padStrike } = engine.now
  const turns = arena[band + BandField.turnCount]
  if (turns < 2) return turns - 1
  if (pick === pickCodes.cycle) return strike % turns
  const { seed } = engine
  const padHash = arena[program + Head.padHash] | 0
  const first = program + arena[band + BandField.turns]
  if (pick === pickCodes.shuffle) {
    if (hasSeldom(arena, first, turns)) return seldomTurn(arena, first, turns, padHash, bandIndex, strike, seed, engine.turnScratch)
    const round = Math.floor(strike / turns)
    return shuffledTurn(padHash, bandIndex, round, strike - round * turns, turns, seed, engine.turnScratch)
  }
  return weightedTurn(arena, first, turns, chance(seed, padHash, padStrike, Purpose.turn))
}

function weightedTurn(arena: Float64Array, turns: number, count: number, draw: number): number {
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
