import type { Clip, Pad, PadId, RayId, TurnId } from '@heliaster/core/kit'

import type { Whom } from './target'

/** A clip where it lies. */
export interface PlacedClip {
  readonly padId: PadId
  readonly clip: Clip
  readonly turnId: TurnId
  readonly rayId: RayId
}

/** The clips that an edit touches, the loudest band's first turn first. */
export function clipsOf(pads: readonly Pad[], whom: Whom): PlacedClip[] {
  return pads.flatMap((pad) => clipsOfOne(pad, whom))
}

function clipsOfOne(pad: Pad, whom: Whom): PlacedClip[] {
  const lists = [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])]
  return lists
    .flatMap((bands) => [...bands].reverse())
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
