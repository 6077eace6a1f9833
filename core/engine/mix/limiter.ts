import { KitField, StatusField } from '../program/layout'
import type { EngineState } from '../state'

/** Level above which the limiter acts: -0.3 dBFS. Below it every sample passes bit for bit. */
export const LIMITER_CEILING = 0.9660508789898133

/** Where the mix goes before the limiter: what is taken back in, at the same frames as the output. */
export interface MixTap {
  readonly left: Float32Array
  readonly right: Float32Array
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
  const { mixLeft, mixRight, limiterRelease } = engine
  const targetGain = engine.memory.kit[KitField.gain]
  let kitGain = engine.kitGain
  let gain = engine.limiterGain
  let loudest = 0
  for (let i = 0; i < count; i++) {
    if (kitGain !== targetGain) {
      kitGain += (targetGain - kitGain) * 0.002
      if (Math.abs(targetGain - kitGain) < 1e-7) kitGain = targetGain
    }
    const left = mixLeft[i] * kitGain
    const right = mixRight[i] * kitGain
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
  engine.kitGain = kitGain
  engine.limiterGain = gain
  const status = engine.memory.status
  status[StatusField.peak] = Math.max(loudest, status[StatusField.peak] * (1 - count * 0.00008))
}
