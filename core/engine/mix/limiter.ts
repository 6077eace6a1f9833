import { BUS_METERS } from '../memory/memory'
import { MASTER, StatusField } from '../program/layout'
import type { EngineState } from '../state'
import { runInserts } from './run-inserts'
import { nearer } from './mix-state'
import type { Pairs, Stem } from './sum-buses'

/** Level above which the limiter acts: -0.3 dBFS. Below it every sample passes bit for bit. */
export const LIMITER_CEILING = 0.9660508789898133

/**
 * Where the mix goes before the limiter, at the same frames as the output: what is taken back in. `stems` are its parts,
 * `sum` what they add up to, before what is put into the
 * master and the kit's own level.
 */
export interface MixTap {
  readonly left: Float32Array
  readonly right: Float32Array
  readonly stems?: readonly Stem[]
  readonly sum?: { readonly left: Float64Array; readonly right: Float64Array }
  readonly pairs?: Pairs
}

/**
 * Kit gain and limiter, then 32-bit output. The limiter has no latency: its gain drops on the very frame that would
 * pass the ceiling and recovers over 80 ms.
 */
export function mixDown(
  engine: EngineState,
  outLeft: Float32Array,
  outRight: Float32Array,
  offset: number,
  count: number,
  tap: MixTap | undefined,
): void {
  const { mix, limiterRelease } = engine
  const mixLeft = mix.left[MASTER]
  const mixRight = mix.right[MASTER]
  const targetGain = mix.gainTarget[MASTER]
  let kitGain = mix.gain[MASTER]
  let gain = engine.limiterGain
  const isLive = mix.isLive[MASTER] !== 0
  const live = mix.liveGain[MASTER]
  let loudest = 0
  if (tap?.sum) copySum(tap.sum, mixLeft, mixRight, offset, count)
  runInserts(engine, MASTER, count)
  for (let i = 0; i < count; i++) {
    if (kitGain !== targetGain) kitGain = nearer(kitGain, targetGain, mix.step)
    const level = isLive ? kitGain * live[i] : kitGain
    const left = mixLeft[i] * level
    const right = mixRight[i] * level
    const peak = Math.max(Math.abs(left), Math.abs(right))
    if (gain < 1) gain = Math.min(1, gain + (1.0000001 - gain) * limiterRelease)
    if (peak * gain > LIMITER_CEILING) gain = LIMITER_CEILING / peak
    outLeft[offset + i] = left * gain
    outRight[offset + i] = right * gain
    if (tap) {
      tap.left[offset + i] = left
      tap.right[offset + i] = right
    }
    if (peak > loudest) loudest = peak
  }
  mix.gain[MASTER] = kitGain
  engine.limiterGain = gain
  const { status, meters } = engine.memory
  status[StatusField.peak] = Math.max(loudest, status[StatusField.peak] * (1 - count * 0.00008))
  if (loudest > meters[BUS_METERS]) meters[BUS_METERS] = loudest
}

function copySum(sum: NonNullable<MixTap['sum']>, left: Float64Array, right: Float64Array, offset: number, count: number): void {
  for (let i = 0; i < count; i++) {
    sum.left[offset + i] = left[i]
    sum.right[offset + i] = right[i]
  }
}
