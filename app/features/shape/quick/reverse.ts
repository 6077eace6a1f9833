import type { Clip, KitEdit, Pad, PadId, RayId } from '@heliaster/core/kit'

import type { Whom } from '../whom/target'

interface Placed {
  readonly padId: PadId
  readonly clip: Clip
  readonly turnId: string
  readonly rayId: RayId
}

/** The clips that an edit touches. */
function clipsOf(pads: readonly Pad[], whom: Whom): Placed[] {
  return pads.flatMap((pad) => clipsOfOne(pad, whom))
}

function clipsOfOne(pad: Pad, whom: Whom): Placed[] {
  const lists = [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])]
  return lists
    .flat()
    .flatMap(({ turns }) => turns)
    .filter(({ id }) => whom.kind !== 'turn' || id === whom.turnId)
    .flatMap(({ id, clips }) =>
      Object.entries(clips).flatMap(([rayId, clip]) =>
        clip !== 'intendedSilence' && (whom.kind !== 'ray' || rayId === whom.rayId)
          ? [{ padId: pad.id, clip, turnId: id, rayId: rayId as RayId }]
          : [],
      ),
    )
}

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
    .map(({ padId, clip, turnId, rayId }) => ({ type: 'setClip', padId, turnId: turnId as never, rayId, clip: { ...clip, reverse } }))
}
