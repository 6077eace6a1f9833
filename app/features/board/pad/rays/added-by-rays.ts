import { strikeLoudness } from '@heliaster/core/audio'
import type { Kit, Pad } from '@heliaster/core/kit'

import { drawStrike } from '../../../../audio/engine/draw'

const VELOCITY = 100
const SECONDS = 4

/** How much louder a pad is than its first ray alone, dB, as the engine plays it. Throws a sentence where either is silent. */
export async function addedByRays(kit: Kit, pad: Pad): Promise<number> {
  const alone = { ...pad, rays: pad.rays.map((ray, i) => (i === 0 ? ray : { ...ray, mute: true })) }
  const [all, one] = await Promise.all([loudnessOf(kit, pad), loudnessOf(kit, alone)])
  if (!Number.isFinite(all) || !Number.isFinite(one))
    throw new Error(`${pad.rays[0].name} makes no sound at velocity ${VELOCITY}, so there is nothing to go by.`)
  return all - one
}

async function loudnessOf(kit: Kit, pad: Pad): Promise<number> {
  const { left, right } = await drawStrike(kit, pad, VELOCITY, SECONDS)
  return strikeLoudness([left, right], 48000)
}
