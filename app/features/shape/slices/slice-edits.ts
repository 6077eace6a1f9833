import { createBand, createTurn } from '@heliaster/core/kit'
import type { Clip, KitEdit, Pad } from '@heliaster/core/kit'
import { withSlices } from '@heliaster/core/slices'
import type { Stretch } from '@heliaster/core/slices'

import { makeId } from '../../../documents/make-id'
import type { Place } from '../whom/place'

type Slices = NonNullable<Clip['slices']>

/** The same change on the clip that is shown and, unless one ray alone is meant, on what other microphones took of the same strike. */
export function clipEdits(pad: Pad, { clip: shown, turnId, rayId }: Place, isOneRay: boolean, change: (clip: Clip) => Clip): KitEdit[] {
  const turn = pad.bands.flatMap(({ turns }) => turns).find(({ id }) => id === turnId)
  const clips = Object.entries(turn?.clips ?? {}).filter(([id, clip]) => clip !== 'intendedSilence' && (id === rayId || !isOneRay)) as [typeof rayId, Clip][] // prettier-ignore
  const all = clips.some(([id]) => id === rayId) ? clips : [[rayId, shown] as const, ...clips]
  return all.map(([id, clip]) => ({ type: 'setClip', padId: pad.id, turnId, rayId: id, clip: change(clip) }))
}

/** Slices of one clip on another that was taken of the same strike: as many frames after its own start. */
export function slicedAlike(shown: Clip, slices: Slices, clip: Clip): Clip {
  const by = clip.startFrame - shown.startFrame
  return withSlices(clip, slices.map((slice) => ({ ...slice, frame: Math.max(0, slice.frame + by) }))) // prettier-ignore
}

const FADE_SECONDS = 0.002

/** The pad as it is struck to hear a stretch of slices, with what is set for them. */
export function sliceVersion(pad: Pad, { turnId, rayId, clip: shown }: Place, { startFrame, endFrame }: Stretch): Pad {
  const turn = pad.bands.flatMap(({ turns }) => turns).find(({ id }) => id === turnId)
  const cut = (clip: Clip): Clip => {
    const by = clip.startFrame - shown.startFrame
    const { loop: _loop, ...plain } = clip
    return { ...plain, startFrame: startFrame + by, endFrame: endFrame + by, fadeInSeconds: 0, fadeOutSeconds: FADE_SECONDS }
  }
  const clips = Object.entries({ [rayId]: shown, ...turn?.clips }).flatMap(([id, clip]) => (clip === 'intendedSilence' ? [] : [[id, cut(clip)]])) // prettier-ignore
  return { ...pad, own: { ...pad.own, mode: 'oneShot' }, bands: [createBand(makeId, 1, [createTurn(makeId, Object.fromEntries(clips))])] }
}
