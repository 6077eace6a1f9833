import type { MakeId, RayId } from '../kit/ids'
import type { Band, Clip } from '../kit/kit'
import { createBand, createTurn } from '../kit/make'
import { naturalBreaks } from './natural-breaks'

/** Lowest velocities of `count` bands of equal width, soft to loud. The first is always 1. */
export function evenEdges(count: number): number[] {
  return Array.from({ length: count }, (_, i) => 1 + Math.round((i * 127) / count))
}

/** All clips in one band, each its own turn. */
export function asTurns(makeId: MakeId, rayId: RayId, clips: readonly Clip[]): Band[] {
  return [createBand(makeId, 1, turnsOf(makeId, rayId, clips))]
}

/** Each clip its own band, in the order given, soft first. At most 127 clips. */
export function asBands(makeId: MakeId, rayId: RayId, clips: readonly Clip[]): Band[] {
  const edges = evenEdges(clips.length)
  return clips.map((clip, i) => createBand(makeId, edges[i], turnsOf(makeId, rayId, [clip])))
}

export interface LoudClip {
  readonly clip: Clip
  readonly loudnessDb: number
}

/** How many bands a set of takes of one thing asks for: about one for each 4 dB they span, and 3 takes or more each. */
export function suggestBands(loudnessDb: readonly number[]): number {
  if (loudnessDb.length === 0) return 0
  const finite = loudnessDb.filter(Number.isFinite)
  const span = finite.length > 0 ? Math.max(...finite) - Math.min(...finite) : 0
  return Math.max(1, Math.min(Math.round(span / 4) + 1, Math.floor(loudnessDb.length / 3), 8))
}

/** Clips of one thing from soft to loud: bands by natural breaks of their loudness, the hits of a band as its turns. */
export function byLoudness(
  makeId: MakeId,
  rayId: RayId,
  takes: readonly LoudClip[],
  bandCount = suggestBands(takes.map((take) => take.loudnessDb)),
): Band[] {
  const sorted = [...takes].sort((a, b) => a.loudnessDb - b.loudnessDb)
  const groups = naturalBreaks(
    sorted.map((take) => Math.max(-120, take.loudnessDb)),
    bandCount,
  )
  const edges = evenEdges(groups.length)
  return groups.map(([from, to], i) =>
    createBand(
      makeId,
      edges[i],
      turnsOf(
        makeId,
        rayId,
        sorted.slice(from, to).map((take) => take.clip),
      ),
    ),
  )
}

function turnsOf(makeId: MakeId, rayId: RayId, clips: readonly Clip[]) {
  return clips.map((clip) => createTurn(makeId, { [rayId]: clip }))
}
