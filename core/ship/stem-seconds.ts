import { grooveBeats } from '../kit/groove-time'
import type { GrooveId } from '../kit/ids'
import type { Kit } from '../kit/kit'

/** By what a mix is parted, whether effects and their tails are in it, and how often a groove goes round. */
export interface StemOptions {
  readonly by: 'bus' | 'pad' | 'ray'
  readonly withEffects: boolean
  readonly what: GrooveId | 'song'
  readonly laps: number
  readonly sampleRateHz: number
  /** Told now and then how much is done, 0..1; false ends it. */
  readonly onDone?: (share: number) => boolean
}

/** Longer than this no stems are made. */
export const MOST_STEM_SECONDS = 1200

/** How long what is parted lasts, without its tail, s. */
export function stemSeconds(kit: Kit, { what, laps }: Pick<StemOptions, 'what' | 'laps'>): number {
  const beatsOf = (id: GrooveId) => kit.grooves.filter((groove) => groove.id === id).reduce((sum, groove) => sum + grooveBeats(groove), 0)
  const beats = what === 'song' ? kit.song.reduce((sum, { groove, laps: times }) => sum + times * beatsOf(groove), 0) : laps * beatsOf(what)
  return (beats * 60) / kit.tempoBpm
}
