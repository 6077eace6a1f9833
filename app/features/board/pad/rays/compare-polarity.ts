import type { Kit, Pad, RayId } from '@heliaster/core/kit'

import { drawStrike } from '../../../../audio/engine/draw'

const VELOCITY = 100
const SECONDS = 1.5
const RATE_HZ = 48000
/** What lies under this is felt as the bottom of a sound. */
const BOTTOM_HZ = 150

/** How much more bottom a pad has with one ray flipped, dB, as the engine plays it; less than 0 where it has less. */
export async function bottomGained(kit: Kit, pad: Pad, rayId: RayId): Promise<number> {
  const flipped = { ...pad, rays: pad.rays.map((ray) => (ray.id === rayId ? { ...ray, invert: !ray.invert } : ray)) }
  const [now, then] = await Promise.all([bottomOf(kit, pad), bottomOf(kit, flipped)])
  if (now === 0 || then === 0) throw new Error(`The pad makes no sound at velocity ${VELOCITY}, so there is nothing to compare.`)
  return 10 * Math.log10(then / now)
}

/** Power under 150 Hz: two one-pole filters in a row over the middle of both channels. */
async function bottomOf(kit: Kit, pad: Pad): Promise<number> {
  const { left, right } = await drawStrike(kit, pad, VELOCITY, SECONDS, RATE_HZ)
  const pole = 1 - Math.exp((-2 * Math.PI * BOTTOM_HZ) / RATE_HZ)
  let first = 0
  let second = 0
  let power = 0
  for (let i = 0; i < left.length; i++) {
    first += pole * ((left[i] + right[i]) / 2 - first)
    second += pole * (first - second)
    power += second * second
  }
  return power
}
