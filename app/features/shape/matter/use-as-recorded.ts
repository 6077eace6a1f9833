import { mapClips } from '@heliaster/core/kit'
import type { Clip, Kit, Pad } from '@heliaster/core/kit'
import { isWorked } from '@heliaster/core/matter'
import { clipsOfPad } from '@heliaster/core/kit'

import { hearVersion } from '../../../audio/engine/sound'
import { drawHit } from '../chart/use-drawn-hit'
import type { DrawnHit } from '../chart/use-drawn-hit'

/** Nobody's ears are asked to bear more. */
const MOST_DB = 24

const asRecorded = ({ process: _worked, ...clip }: Clip): Clip => clip

/** The pad with its matter as it was recorded: heard as loud as it is now, so that only the matter differs. */
export function useAsRecorded(kit: Kit, pad: Pad, drawn: DrawnHit | undefined) {
  return {
    hasChanged: clipsOfPad(pad).some(isWorked),
    async hear(): Promise<void> {
      const plain = mapClips(pad, asRecorded)
      const then = await drawHit(kit, plain).catch(() => undefined)
      const difference = drawn && then ? drawn.loudnessDb - then.loudnessDb : 0
      hearVersion(plain, Number.isFinite(difference) ? Math.min(MOST_DB, Math.max(-MOST_DB, difference)) : 0)
    },
  }
}
