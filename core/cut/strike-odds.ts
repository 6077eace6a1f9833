import { signsOf, SIGNS } from './strike-signs'
import type { Sound } from './strike-signs'
import { learned } from './strike-weights'

/** A net of one layer between: signs in, log odds out. Weights of a unit lie together. */
export interface Net {
  readonly units: number
  /** For each unit `SIGNS` weights and what is added. */
  readonly inner: ArrayLike<number>
  /** For each unit one weight, and what is added. */
  readonly outer: ArrayLike<number>
}

/**
 * How likely each rise is a strike of its own, as log odds (0: as likely as not), rather than an echo, a toe, a splinter
 * or the restlessness of the room. Told by a small net from `signsOf`; bench/learn-strikes.ts made its weights from
 * recordings whose strikes are known.
 */
export function strikeOdds(sounds: readonly Sound[], net: Net = learned): number[] {
  const signs = signsOf(sounds)
  return sounds.map((_, i) => oddsOf(net, signs, i * SIGNS))
}

export function oddsOf({ units, inner, outer }: Net, signs: Float64Array, from: number): number {
  let odds = outer[units]
  for (let unit = 0; unit < units; unit++) {
    const at = unit * (SIGNS + 1)
    let sum = inner[at + SIGNS]
    for (let i = 0; i < SIGNS; i++) sum += inner[at + i] * signs[from + i]
    odds += outer[unit] * Math.tanh(sum)
  }
  return odds
}
