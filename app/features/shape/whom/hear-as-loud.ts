import type { Kit, Pad } from '@heliaster/core/kit'

import { hearVersion } from '../../../audio/engine/sound'
import { drawHit } from '../chart/use-drawn-hit'
import type { DrawnHit } from '../chart/use-drawn-hit'

/** Nobody's ears are asked to bear more. */
const MOST_DB = 24

/** Sounds another version of a pad as loud as the pad is now, so that only the sound differs. */
export async function hearAsLoud(kit: Kit, version: Pad, now: DrawnHit | undefined): Promise<void> {
  const other = await drawHit(kit, version).catch(() => undefined)
  const difference = now && other ? now.loudnessDb - other.loudnessDb : 0
  hearVersion(version, Number.isFinite(difference) ? Math.min(MOST_DB, Math.max(-MOST_DB, difference)) : 0)
}
