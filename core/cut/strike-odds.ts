import { oddsOf } from './net'
import type { Net } from './net'
import { signsOf, SIGNS } from './strike-signs'
import type { Sound } from './strike-signs'
import { learned } from './strike-weights'

/**
 * How likely each rise is a strike of its own, as log odds (0: as likely as not), rather than an echo, a toe, a splinter
 * or the restlessness of the room. Told by a small net from `signsOf`; bench/learn-strikes.ts made its weights from
 * recordings whose strikes are known.
 */
export function strikeOdds(sounds: readonly Sound[], flux: Float32Array, net: Net = learned): number[] {
  const signs = signsOf(sounds, flux)
  return sounds.map((_, i) => oddsOf(net, signs, i * SIGNS, SIGNS))
}
