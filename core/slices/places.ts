import type { Clip, Slice } from '../kit/clip'

/** A stretch of a file, frames. */
export interface Stretch {
  readonly startFrame: number
  readonly endFrame: number
}

/** The most slices of a clip. */
export const MOST_SLICES = 512

/**
 * Slices from these frames of the file on; those inside of the clip, each frame once, and the clip's own start with them. What was
 * set where a slice stays is kept; a new one is as the slice that it is cut from.
 */
export function slicedAt(clip: Pick<Clip, 'startFrame' | 'endFrame' | 'slices'>, frames: readonly number[], makeId: () => string): Slice[] {
  const inside = frames.map(Math.round).filter((frame) => frame > clip.startFrame && frame < clip.endFrame)
  const starts = [...new Set([clip.startFrame, ...inside])].sort((a, b) => a - b).slice(0, MOST_SLICES)
  const before = [...(clip.slices ?? [])].sort((a, b) => a.frame - b.frame)
  return starts.map((frame) => {
    const there = before.find((slice) => slice.frame === frame)
    if (there) return there
    const { values, sends } = before.findLast((slice) => slice.frame < frame) ?? { values: {}, sends: undefined }
    return { id: makeId(), frame, values, ...(sends ? { sends } : {}) }
  })
}

/** A border between two slices, the place of the later one, moved to a frame; at least `gapFrames` from both its neighbours. */
export function withBorder(clip: Pick<Clip, 'startFrame' | 'endFrame'>, slices: readonly Slice[], place: number, frame: number, gapFrames: number): Slice[] {
  const least = (slices[place - 1]?.frame ?? clip.startFrame) + gapFrames
  const most = (slices[place + 1]?.frame ?? clip.endFrame) - gapFrames
  if (place < 1 || most < least) return [...slices]
  return slices.map((slice, i) => (i === place ? { ...slice, frame: Math.round(Math.min(most, Math.max(least, frame))) } : slice))
} // prettier-ignore

/** A clip with slices, or without any. */
export function withSlices({ slices: _before, ...clip }: Clip, slices: readonly Slice[]): Clip {
  return slices.length > 0 ? { ...clip, slices: [...slices] } : clip
}

/** Frames of the file in steps of so many beats from the start of a stretch on. */
export function beatsWithin({ startFrame, endFrame }: Stretch, sampleRateHz: number, tempoBpm: number, beats: number): number[] {
  const step = (60 / tempoBpm) * beats * sampleRateHz
  const count = Math.min(MOST_SLICES, Math.ceil((endFrame - startFrame) / step))
  return Array.from({ length: count }, (_, i) => Math.round(startFrame + i * step))
}
