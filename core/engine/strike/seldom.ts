import { TurnField } from '../program/layout'
import { hash32, mixEntries, Purpose } from './chance'
import type { Deck } from './chance'

/** Rounds of a shuffle after which turns that come more seldom have come as often as they should. */
const SELDOM_ROUNDS = 4

/** Turns of a program that weigh unlike each other: where they begin, and the weight of the heaviest. */
export interface WeighedDeck extends Deck {
  readonly arena: Float64Array
  turns: number
  heaviest: number
  /** The turn that was laid out last, -1 before the first. */
  last: number
}

/** Whether some turn of a band weighs less than another, so that a shuffle cannot simply play each once a round. */
export function hasSeldom(deck: WeighedDeck): boolean {
  for (let i = 1; i < deck.count; i++) if (weightOf(deck, i) !== weightOf(deck, 0)) return true
  return false
}

/**
 * The turn of a shuffle in which turns come as often as their weights say, in quarters of the heaviest: in each run of
 * four rounds a turn takes part in one to four of them, evenly spread, from a round on that chance decides; one of weight
 * 0 never. A round begins with another turn than the one before ended with, where it has two or more. Allocates nothing.
 */
export function seldomTurn(deck: WeighedDeck, strike: number): number {
  deck.heaviest = 0
  for (let i = 0; i < deck.count; i++) deck.heaviest = Math.max(deck.heaviest, weightOf(deck, i))
  let run = 0
  for (let i = 0; i < deck.count; i++) run += partsOf(deck, i)
  if (run === 0) return 0
  const cycle = Math.floor(strike / run)
  deck.last = -1
  if (cycle > 0) for (let round = 0; round < SELDOM_ROUNDS; round++) layRound(deck, cycle - 1, round)
  let left = strike - cycle * run
  for (let round = 0; round < SELDOM_ROUNDS; round++) {
    const took = layRound(deck, cycle, round)
    if (left < took) return deck.scratch[left]
    left -= took
  }
  return deck.scratch[0]
}

function weightOf({ arena, turns }: WeighedDeck, turn: number): number {
  return arena[turns + turn * TurnField.length + TurnField.weight]
}

/** In how many rounds of a run a turn takes part. */
function partsOf(deck: WeighedDeck, turn: number): number {
  const weight = weightOf(deck, turn)
  if (!(weight > 0)) return 0
  return Math.max(1, Math.floor((SELDOM_ROUNDS * weight) / deck.heaviest + 0.5))
}

/** Lays out the turns of a round in the order in which they are played; returns how many take part. */
function layRound(deck: WeighedDeck, cycle: number, round: number): number {
  const { scratch } = deck
  const took = fillRound(deck, cycle, round)
  if (took === 0) return 0
  mixEntries(deck, cycle * SELDOM_ROUNDS + round, took)
  // A round that would begin with the turn played last has its first two exchanged.
  if (took > 1 && scratch[0] === deck.last) {
    scratch[0] = scratch[1]
    scratch[1] = deck.last
  }
  deck.last = scratch[took - 1]
  return took
}

/** Lays out the turns that take part in a round, in the order of the band; returns how many there are. */
function fillRound(deck: WeighedDeck, cycle: number, round: number): number {
  let took = 0
  for (let turn = 0; turn < deck.count; turn++) {
    const parts = partsOf(deck, turn)
    const from = hash32(deck.seed, deck.key, cycle * 128 + deck.list, Purpose.seldom * 65536 + turn) % SELDOM_ROUNDS
    const place = (round + from) % SELDOM_ROUNDS
    if (Math.floor(((place + 1) * parts) / SELDOM_ROUNDS) > Math.floor((place * parts) / SELDOM_ROUNDS)) deck.scratch[took++] = turn
  }
  return took
}
