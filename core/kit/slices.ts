import type { Clip, Slice } from './clip'
import type { BusId } from './ids'
import type { Pad, Ray } from './kit'
import { valueOf } from './parameters'
import { bandsOfRay } from './resolve'

/** A slice where a clip comes to it, in frames of what the clip plays; undefined for what has nothing set. */
export interface PlayedSlice {
  readonly frame: number
  readonly slice: Slice | undefined
}

/** Whether anything is set for a slice. */
export const isSet = ({ values, sends }: Slice): boolean =>
  Object.values(values).some((value) => value !== 0) || Object.keys(sends ?? {}).length > 0

/** A slice's stretch of its file: from its frame to that of the next, or to the end of the clip. */
export interface SliceStretch {
  readonly slice: Slice
  readonly startFrame: number
  readonly endFrame: number
}

/** The slices of a clip, those that lie in it, from first to last; what lies before its start begins with it. */
export function stretchesOf(clip: Pick<Clip, 'slices' | 'startFrame' | 'endFrame'>): SliceStretch[] {
  const sorted = [...(clip.slices ?? [])].filter(({ frame }) => frame < clip.endFrame).sort((a, b) => a.frame - b.frame)
  return sorted.flatMap((slice, i) => {
    const startFrame = Math.max(clip.startFrame, slice.frame)
    const endFrame = Math.min(clip.endFrame, sorted[i + 1]?.frame ?? clip.endFrame)
    return endFrame > startFrame ? [{ slice, startFrame, endFrame }] : []
  })
}

/** The slices of a clip in the order in which it plays them; none where nothing is set for any. */
export function playedSlices(clip: Clip): PlayedSlice[] {
  const stretches = stretchesOf(clip)
  if (!stretches.some(({ slice }) => isSet(slice))) return []
  if (!clip.reverse) return stretches.map(({ slice, startFrame }) => ({ frame: startFrame - clip.startFrame, slice }))
  const back: PlayedSlice[] = stretches.reverse().map(({ slice, endFrame }) => ({ frame: clip.endFrame - endFrame, slice }))
  // What lies before the first slice is played last, with nothing set.
  const first = stretches.at(-1)!.startFrame
  return first > clip.startFrame ? [...back, { frame: clip.endFrame - first, slice: undefined }] : back
}

/** The clips that a ray of a pad plays. */
function clipsOfRay(pad: Pad, ray: Ray): Clip[] {
  const cells = bandsOfRay(pad, ray).flatMap(({ turns }) => turns.map(({ clips }) => clips[ray.id]))
  return cells.filter((clip): clip is Clip => clip !== undefined && clip !== 'intendedSilence')
}

/** The buses to which slices of a ray's clips send, each once. */
export function busesOfSlices(pad: Pad, ray: Ray): BusId[] {
  const slices = clipsOfRay(pad, ray).flatMap((clip) => clip.slices ?? [])
  return [...new Set(slices.flatMap(({ sends }) => Object.keys(sends ?? {}) as BusId[]))]
}

/** By how many cents slices raise a ray's clips at most; 0 where none does. */
export function highestSlice(pad: Pad, ray: Ray): number {
  const slices = clipsOfRay(pad, ray).flatMap((clip) => clip.slices ?? [])
  return slices.reduce((most, slice) => Math.max(most, valueOf(slice, 'tuneCents')), 0)
}
