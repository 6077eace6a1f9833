import type { MakeId, RayId } from '../kit/ids'
import type { Band } from '../kit/kit'
import { createBand, createTurn } from '../kit/make'
import { velocityRangeDb, velocityToLevel } from '../kit/responses'
import type { Response } from '../kit/shape'
import { naturalBreaks } from './natural-breaks'
import { suggestBands, thinned } from './place'
import type { LoudClip } from './place'

/** Clips of one thing on a pad whose velocity alone says how loud a strike is. */
export interface AsLoud {
  readonly bands: Band[]
  /** Velocity to level, by which the velocities below are as loud as the takes were. */
  readonly response: Response
  /** Of each take, in the order given: the velocity that strikes as loud as it was, 1..127, within the band in which it lies. */
  readonly velocities: readonly number[]
}

/** So much of the way from the softest velocity to the loudest is kept for what was struck; softer strikes lie below. */
const STRUCK_SHARE = 0.8
/** The widest way from the softest velocity to the loudest that the sliders of a response reach. */
const WIDEST_DB = 48
const MOST_GAIN_DB = 60
const SOFTEST_DB = -120

/**
 * Lays takes of one thing out so that what was played can be played again as loud as it was, whichever take answers: each is
 * raised to the level of the loudest (by 48 dB at most), and velocity lowers it again, to within half a step of velocity (a
 * whole one at the softest). Bands are natural breaks of the loudness; what one velocity strikes is not parted.
 */
export function asLoud(makeId: MakeId, rayId: RayId, takes: readonly LoudClip[]): AsLoud {
  const levels = takes.map(({ loudnessDb }) => Math.max(SOFTEST_DB, loudnessDb))
  const loudest = Math.max(...levels)
  const span = Math.min(WIDEST_DB, loudest - Math.min(...levels))
  const rangeDb = Math.min(WIDEST_DB, Math.max(velocityRangeDb(1), span / STRUCK_SHARE))
  const laid = takes.map((take, i) => ({ ...take, below: Math.min(span, loudest - levels[i]) }))
  const sorted = [...laid].sort((a, b) => b.below - a.below)
  const velocityOf = ({ below }: { readonly below: number }) => velocityBelow(below, rangeDb)
  const ends = naturalBreaks(sorted.map(({ below }) => -below), suggestBands(levels)).map(([, to]) => to) // prettier-ignore
  const parted = ends.filter((to) => to === sorted.length || velocityOf(sorted[to - 1]) < velocityOf(sorted[to]))
  const groups = parted.map((to, i) => sorted.slice(parted[i - 1] ?? 0, to))
  const edges = edgesBetween(groups.map((group) => [velocityOf(group[0]), velocityOf(group[group.length - 1])]))
  const bands = groups.map((group, g) => {
    const turns = thinned(group).map(({ clip, below }) => createTurn(makeId, { [rayId]: { ...clip, gainDb: Math.min(MOST_GAIN_DB, clip.gainDb + below) } })) // prettier-ignore
    return createBand(makeId, edges[g], turns)
  })
  return { bands, response: { ...velocityToLevel(1), amount: rangeDb }, velocities: laid.map(velocityOf) }
}

/** The velocity that lies so many dB below the loudest where `rangeDb` lie between none and 127. */
export function velocityBelow(belowDb: number, rangeDb: number): number {
  return Math.min(127, Math.max(1, Math.round(127 * (1 - belowDb / rangeDb))))
}

/** The lowest velocity of each band, halfway between what is struck in the one before and in itself. */
function edgesBetween(struck: readonly (readonly [softest: number, loudest: number])[]): number[] {
  return struck.map(([softest], i) => (i === 0 ? 1 : Math.ceil((struck[i - 1][1] + softest + 1) / 2)))
}
