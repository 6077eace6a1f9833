import type { Kit, Pad } from '@heliaster/core/kit'
import { useState } from 'react'

import { hearVersion } from '../../../audio/engine/sound'
import { drawHit } from '../chart/use-drawn-hit'
import type { DrawnHit } from '../chart/use-drawn-hit'

/** Nobody's ears are asked to bear more. */
const MOST_DB = 24

/** The pad as it was when one came to it: heard as loud as it is now, so that only the sound differs. */
export function useBefore(kit: Kit, pad: Pad, drawn: DrawnHit | undefined) {
  const [before] = useState({ kit, pad })
  return {
    hasChanged: before.pad !== pad,
    async hear(): Promise<void> {
      const then = await drawHit(before.kit, before.pad).catch(() => undefined)
      const difference = drawn && then ? drawn.loudnessDb - then.loudnessDb : 0
      hearVersion(before.pad, Number.isFinite(difference) ? Math.min(MOST_DB, Math.max(-MOST_DB, difference)) : 0)
    },
  }
}
