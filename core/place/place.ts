import type { MakeId, RayId } from '../kit/ids'
import type { Band, Clip } from '../kit/kit'
import { createBand, createTurn } from '../kit/make'
import { naturalBreaks } from './natural-breaks'

/** Lowest velocities of `count` bands of equal width, soft to loud. The first is always 1. */
export function evenEdges(count: number): number[] {
  return Array.from({ length: count }, (_, i) => 1 + Math.round((i * 127) / count))
}

/** The most turns a band can have. */
export const MOST_TURNS = 128

/** All clips in one band, each its own turn; of more than 128, every so many are left out. */
export function asTurns(makeId: MakeId, rayId: RayId, clips: readonly Clip[]): Band[] {
  return [createBand(makeId, 1, turnsOf(makeId, rayId, clips))]
}

/**
 * Clips as bands in the order given, soft first: each its own, or so many bands, as nearly alike in number of turns as can be.
 * At most 127 bands.
 */
export function asBands(makeId: MakeId, rayId: RayId, clips: readonly Clip[], bandCount = clips.length): Band[] {
  const count = Math.min(clips.length, Math.max(1, bandCount))
  const edges = evenEdges(count)
  const borderOf = (band: number) => Math.round((band * clips.length) / count)
  return edges.map((edge, i) => createBand(makeId, edge, turnsOf(makeId, rayId, clips.slice(borderOf(i), borderOf(i + 1)))))
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

/** Whether each hit keeps its own level, or all of a band are brought to the band's mean. */
export type BandLevels = 'kept' | 'evened'

/**
 * Clips of one thing from soft to loud: bands by natural breaks of their loudness, the hits of a band as its turns (128
 * at most, evenly from all). Each band answers the velocities that its loudness deserves, so that loudness rises evenly with velocity.
 */
export function byLoudness(
  makeId: MakeId,
  rayId: RayId,
  takes: readonly LoudClip[],
  bandCount = suggestBands(takes.map((take) => take.loudnessDb)),
  levels: BandLevels = 'kept',
): Band[] {
  const sorted = takes.map(({ clip, loudnessDb }) => ({ clip, db: Math.max(-120, loudnessDb) })).sort((a, b) => a.db - b.db)
  const groups = naturalBreaks(
    sorted.map((take) => take.db),
    bandCount,
  ).map(([from, to]) => sorted.slice(from, to))
  const means = groups.map((group) => group.reduce((sum, take) => sum + take.db, 0) / group.length)
  const edges = loudnessEdges(means)
  return groups.map((group, i) => {
    const clips = group.map(({ clip, db }) => (levels === 'kept' ? clip : { ...clip, gainDb: Math.min(60, clip.gainDb + means[i] - db) }))
    return createBand(makeId, edges[i], turnsOf(makeId, rayId, clips))
  })
}

/**
 * Lowest velocities of bands whose loudness is given, soft to loud: loudness in dB is a straight line over velocity, and
 * the border between two bands is where the line is halfway between them. Every band keeps a few velocities.
 */
export function loudnessEdges(meansDb: readonly number[]): number[] {
  const count = meansDb.length
  const even = evenEdges(count)
  if (count < 2 || meansDb[count - 1] - meansDb[0] < 0.01) return even
  const low = meansDb[0] - (meansDb[1] - meansDb[0]) / 2
  const high = meansDb[count - 1] + (meansDb[count - 1] - meansDb[count - 2]) / 2
  const least = Math.max(1, Math.floor(127 / count / 3))
  const edges = [1]
  for (let i = 1; i < count; i++) {
    const halfway = (meansDb[i - 1] + meansDb[i]) / 2
    const wanted = 1 + Math.round((127 * (halfway - low)) / (high - low))
    edges.push(Math.min(128 - least * (count - i), Math.max(edges[i - 1] + least, wanted)))
  }
  return edges
}

function turnsOf(makeId: MakeId, rayId: RayId, clips: readonly Clip[]) {
  return thinned(clips).map((clip) => createTurn(makeId, { [rayId]: clip }))
}

/** As many as a band can hold, evenly from all. */
export function thinned<T>(items: readonly T[]): readonly T[] {
  if (items.length <= MOST_TURNS) return items
  return Array.from({ length: MOST_TURNS }, (_, i) => items[Math.floor((i * items.length) / MOST_TURNS)])
}
