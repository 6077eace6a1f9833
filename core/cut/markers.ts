import type { MarkerId } from '../kit/ids'
import type { Marker, Source } from '../kit/source'
import type { Onset } from './onsets'

/** A marker as it stands on the waveform: one that someone has touched, or one that the water line shows. */
export interface LiveMarker extends Omit<Marker, 'removed'> {
  /** Whether it is written in the source; a marker that was only found is not. */
  readonly kept: boolean
  readonly strength?: number
}

const SAME_SECONDS = 0.012

/**
 * Joins what was found with what was touched. A touched marker stays wherever the water line goes and hides the found
 * one beside it, and the one it was before it was moved; a removed one hides them too.
 */
export function liveMarkers(source: Source, onsets: readonly Onset[]): LiveMarker[] {
  const near = SAME_SECONDS * source.info.sampleRateHz
  const live: LiveMarker[] = source.markers
    .filter((marker) => !marker.removed)
    .map(({ removed: _removed, ...marker }) => ({ ...marker, kept: true }))
  const taken = source.markers.flatMap((marker) => [marker.frame, ...foundAt(marker.id)]).sort((a, b) => a - b)
  let next = 0
  for (const onset of [...onsets].sort((a, b) => a.frame - b.frame)) {
    while (next < taken.length && taken[next] <= onset.frame - near) next++
    if (next < taken.length && taken[next] < onset.frame + near) continue
    live.push({ id: foundId(onset.frame), frame: onset.frame, origin: 'found', pinned: false, kept: false, strength: onset.strength })
  }
  return live.sort((a, b) => a.frame - b.frame)
}

/** The id of a marker that was only found: the same place gives the same id, so a list does not jump. */
export function foundId(frame: number): MarkerId {
  return `found-${frame}` as MarkerId
}

const FOUND = /^found-(\d+)$/

/** The frame at which a marker was found, wherever it has been moved since; none for one that was set otherwise. */
export function foundAt(id: MarkerId): number[] {
  const found = FOUND.exec(id)
  return found ? [Number(found[1])] : []
}

/** The marker as it is written once someone touches it. */
export function keptMarker(marker: LiveMarker, changes: Partial<Marker>): Marker {
  const { kept: _kept, strength: _strength, ...written } = marker
  return { ...written, removed: false, ...changes }
}
