import { hash32, mixEntries, Purpose } from './chance'
import { TurnField } from '../program/layout'

/** Rounds of a shuffle after which turns that come more seldom have come as often as they should. */
export const SELDOM_ROUNDS = 4

/** Whether some turn of a band weighs less than another, so that a shuffle cannot simply play each once a round. */
export function hasSeldom(arena: Float64Array, turns: number, count: number): boolean {
  for (let i = 1; i < count; i++) if (weightOf(arena, turns, i) !== weightOf(arena, turns, 0)) return true
  return false
}

/**
 * The turn of a shuffle in which turns come as often as their weights say, in quarters of the heaviest: in each run of
 * four rounds a turn takes part in one to four of them, evenly spread, from a round on that chance decides; one of weight
 * 0 never. A round begins with another turn than the one before ended with, where it has two or more. Allocates nothing;
 * `scratch` holds `count`.
 */
export function seldomTurn(
  arena: Float64Array,
  turns: number,
  count: number,
  key: number,
  band: number,
  strike: number,
  seed: number,
  scratch: Int32Array,
): number {
  let heaviest = 0
  for (let i = 0; i < count; i++) heaviest = Math.max(heaviest, weightOf(arena, turns, i))
  let run = 0
  for (let i = 0; i < count; i++) run += partsOf(weightOf(arena, turns, i), heaviest)
  if (run === 0) return 0
  const cycle = Math.floor(strike / run)
  let last = -1
  if (cycle > 0)
    for (let round = 0; round < SELDOM_ROUNDS; round++) {
      const took = fillRound(arena, turns, count, heaviest, key, band, cycle - 1, round, seed, scratch)
      if (took > 0) last = orderRound(key, band, (cycle - 1) * SELDOM_ROUNDS + round, took, last, seed, scratch)
    }
  let left = strike - cycle * run
  for (let round = 0; round < SELDOM_ROUNDS; round++) {
    const took = fillRound(arena, turns, count, heaviest, key, band, cycle, round, seed, scratch)
    if (took === 0) continue
    last = orderRound(key, band, cycle * SELDOM_ROUNDS + round, took, last, seed, scratch)
    if (left < took) return scratch[left]
    left -= took
  }
  return scratch[0]
}

function weightOf(arena: Float64Array, turns: number, turn: number): number {
  return arena[turns + turn * TurnField.length + TurnField.weight]
}

/** In how many rounds of a run a turn takes part. */
function partsOf(weight: number, heaviest: number): number {
  if (!(weight > 0)) return 0
  return Math.max(1, Math.floor((SELDOM_ROUNDS * weight) / heaviest + 0.5))
}

/** Fills `scratch` with the turns that take part in a round, in their order; returns how many there are. */
function fillRound(
  arena: Float64Array,
  turns: number,
  count: number,
  heaviest: number,
  key: number,
  band: number,
  cycle: number,
  round: number,
  seed: number,
  scratch: Int32Array,
): number {
  let took = 0
  for (let turn = 0; turn < count; turn++) {
    const parts = partsOf(weightOf(arena, turns, turn), heaviest)
    const from = hash32(seed, key, cycle * 128 + band, Purpose.seldom * 65536 + turn) % SELDOM_ROUNDS
    const place = (round + from) % SELDOM_ROUNDS
    if (Math.floor(((place + 1) * parts) / SELDOM_ROUNDS) > Math.floor((place * parts) / SELDOM_ROUNDS)) scratch[took++] = turn
  }
  return took
}

/** Mixes a round; one that would begin with the turn played last has its first two exchanged. Returns its last turn. */
function orderRound(key: number, band: number, round: number, took: number, before: number, seed: number, scratch: Int32Array): number {
  mixEntries(key, band, round, took, seed, scratch)
  if (took > 1 && scratch[0] === before) {
    scratch[0] = scratch[1]
    scratch[1] = before
  }
  return scratch[took - 1]
}
