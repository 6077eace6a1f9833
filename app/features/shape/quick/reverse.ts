import type { KitEdit, Pad } from '@heliaster/core/kit'

import { clipsOf } from '../whom/clips-of'
import type { Whom } from '../whom/target'

/** Whether all of them, some or none go backwards. */
export function reversedOf(pads: readonly Pad[], whom: Whom): 'all' | 'some' | 'none' {
  const clips = clipsOf(pads, whom)
  const count = clips.filter(({ clip }) => clip.reverse).length
  return count === 0 ? 'none' : count === clips.length ? 'all' : 'some'
}

/** Turns all of them the same way. */
export function reverseEdits(pads: readonly Pad[], whom: Whom, reverse: boolean): KitEdit[] {
  return clipsOf(pads, whom)
    .filter(({ clip }) => clip.reverse !== reverse)
    .map(({ padId, clip, turnId, rayId }) => ({ type: 'setClip', padId, turnId, rayId, clip: { ...clip, reverse } }))
}
