/**
 * Named chance: every draw is a hash of what it is for, so adding a new kind of draw never shifts an old one,
 * and the same strike of the same pad decides the same way in every host.
 */

/** What a draw decides. New purposes are added at the end; a number once given never changes its meaning. */
export const Purpose = { turn: 1, shuffle: 2, response: 3, tie: 4, seldom: 5, oscillator: 6, bead: 7, form: 8 } as const

/** Mixes whole numbers into 32 well-spread bits (the finaliser of MurmurHash3, A. Appleby, public domain). */
export function hash32(a: number, b: number, c: number, d: number): number {
  let h = Math.imul(a ^ 0x9e3779b9, 0x85ebca6b)
  h = mix(h ^ Math.imul(b | 0, 0xc2b2ae35))
  h = mix(h ^ Math.imul(c | 0, 0x27d4eb2f))
  return mix(h ^ Math.imul(d | 0, 0x165667b1)) >>> 0
}

function mix(h: number): number {
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return h ^ (h >>> 16)
}

/** A number in 0..1 (1 excluded) for one decision of one strike. */
export function chance(seed: number, padHash: number, strikeNumber: number, purpose: number): number {
  return hash32(seed, padHash, strikeNumber, purpose) / 4294967296
}

/** 32 bits that stand for an id; FNV-1a. */
export function hashId(id: string): number {
  let h = 0x811c9dc5
  for (let i = 0; i < id.length; i++) h = Math.imul(h ^ id.charCodeAt(i), 0x01000193)
  return h >>> 0
}

/** What is shuffled: by which seed and key, which list of that key, how many there are, and room to lay them out. */
export interface Deck {
  seed: number
  key: number
  list: number
  count: number
  readonly scratch: Int32Array
}

/**
 * The turn of place `index` in round `round` of a shuffle: each turn once a round, and the first of a round is never the
 * last of the one before (for two turns and more). Fisher-Yates.
 */
export function shuffledTurn(deck: Deck, round: number, index: number): number {
  const { count, scratch } = deck
  if (count < 2) return 0
  if (count === 2) return twoTurns(deck, index)
  const previousLast = round > 0 ? permute(deck, round - 1) : -1
  permute(deck, round)
  // A round whose first turn repeats the last one played swaps it with its second.
  if (scratch[0] === previousLast) {
    scratch[0] = scratch[1]
    scratch[1] = previousLast
  }
  return scratch[index]
}

/** Two turns that never repeat can only alternate; chance decides which begins. */
function twoTurns({ seed, key, list }: Deck, index: number): number {
  const begins = hash32(seed, key, list, Purpose.shuffle) & 1
  return (begins + index) & 1
}

/** Lays out the permutation of one round and returns its last entry. */
function permute(deck: Deck, round: number): number {
  for (let i = 0; i < deck.count; i++) deck.scratch[i] = i
  return mixEntries(deck, round, deck.count)
}

/** Brings the first `count` entries that are laid out into the order of one round and returns the last of them. Fisher-Yates. */
export function mixEntries({ seed, key, list, scratch }: Deck, round: number, count: number): number {
  for (let i = count - 1; i > 0; i--) {
    const draw = hash32(seed, key, round * 128 + list, Purpose.shuffle * 65536 + i)
    const j = Math.floor((draw / 4294967296) * (i + 1))
    const held = scratch[i]
    scratch[i] = scratch[j]
    scratch[j] = held
  }
  return scratch[count - 1]
}
