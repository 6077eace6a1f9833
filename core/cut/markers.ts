import type { MarkerId } from '../kit/ids'
import type { Marker, Source } from '../kit/source'
import type { Onset } from './onsets'

/** A marker as it stands on the waveform: one that someone has touched, or one that the water line shows. */
export interface LiveMarker extends Omit<Marker, 'removed'> {
  /** Whether it is written in the source; a marker that was only found is not. */
  readonly kept: boolean
  readonly strength?: number
  /** Where a grid has it that was moved to an attack. */
  readonly gridFrame?: number
}

const SAME_SECONDS = 0.012

/**
 * Joins what was found with what was touched. A touched marker stays wherever the water line goes and hides the found
 * one beside it, and the one it was before it was moved; a removed one hides them too. A strike that was removed takes no
 * mark of a grid along: only the mark itself can be removed.
 */
export function liveMarkers(source: Source, onsets: readonly Onset[]): LiveMarker[] {
  const near = SAME_SECONDS * source.info.sampleRateHz
  const live: LiveMarker[] = source.markers
    .filter((marker) => !marker.removed)
    .map(({ removed: _removed, ...marker }) => ({ ...marker, kept: true, ...gridPlace(marker.id) }))
  const byId = new Set<string>(source.markers.map(({ id }) => id))
  const kept = sorted(live.flatMap((marker) => [marker.frame, ...foundAt(marker.id)]))
  const gone = sorted(
    source.markers.flatMap((marker) => (marker.removed && !GRID.test(marker.id) ? [marker.frame, ...foundAt(marker.id)] : [])),
  )
  for (const { frame, strength, gridFrame } of onsets) {
    const id = gridFrame === undefined ? foundId(frame) : gridId(gridFrame)
    if (byId.has(id) || isNear(kept, frame, near) || (gridFrame === undefined && isNear(gone, frame, near))) continue
    live.push({ id, frame, origin: 'found', pinned: false, kept: false, strength, ...(gridFrame === undefined ? {} : { gridFrame }) })
  }
  return live.sort((a, b) => a.frame - b.frame)
}

const sorted = (frames: number[]) => frames.sort((a, b) => a - b)

/** Whether one of the sorted frames lies less than `within` from `frame`. */
function isNear(frames: readonly number[], frame: number, within: number): boolean {
  let low = 0
  let high = frames.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (frames[middle] <= frame - within) low = middle + 1
    else high = middle
  }
  return low < frames.length && frames[low] < frame + within
}

/** The id of a marker that was only found: the same place gives the same id, so a list does not jump. */
export function foundId(frame: number): MarkerId {
  return `found-${frame}` as MarkerId
}

/** The id of a mark of a grid, by where the grid has it. */
function gridId(gridFrame: number): MarkerId {
  return `grid-${gridFrame}` as MarkerId
}

const FOUND = /^found-(\d+)$/
const GRID = /^grid-(\d+)$/

/** The frame at which a marker was found, wherever it has been moved since; none for one that was set otherwise. */
export function foundAt(id: MarkerId): number[] {
  const found = FOUND.exec(id)
  return found ? [Number(found[1])] : []
}

const BY_HAND = /^hand-(\d+)-/

/** The id of a marker that someone set: it tells where, wherever the marker is moved later. */
export function handId(frame: number, own: string): MarkerId {
  return `hand-${frame}-${own}` as MarkerId
}

/** Where a marker was first, whatever has been done to it since: what a hit is called goes by this, and so it stays. */
export function firstFrame({ id, frame }: Pick<Marker, 'id' | 'frame'>): number {
  const place = FOUND.exec(id) ?? GRID.exec(id) ?? BY_HAND.exec(id)
  return place ? Number(place[1]) : frame
}

function gridPlace(id: MarkerId): { gridFrame?: number } {
  const found = GRID.exec(id)
  return found ? { gridFrame: Number(found[1]) } : {}
}

/** The marker as it is written once someone touches it. */
export function keptMarker(marker: LiveMarker, changes: Partial<Marker>): Marker {
  const { kept: _kept, strength: _strength, gridFrame: _gridFrame, ...written } = marker
  return { ...written, removed: false, ...changes }
}
