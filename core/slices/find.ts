import { dividingJoin, groupsAfter, hitPortraitsOf, hitUnlikeness, joinsOf } from '../alike'
import { toMono } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { findHits, heardStrikes, lineOf, startFrameOf } from '../cut'
import { MOST_SLICES } from './places'
import type { Stretch } from './places'

const MIN_GAP_SECONDS = 0.03
/** Every pair of slices is compared, so there is an end to it; those behind are alike to nothing. */
const MOST_COMPARED = MOST_SLICES

/**
 * Where strikes begin within a stretch of a recording, frames of the file, each with room for its attack: what is found there as
 * Cut finds it, with the water where this stretch divides, and without what a lossy codec spread where one was there before.
 */
export function strikesWithin(audio: Audio, { startFrame, endFrame }: Stretch, isCoded = false): number[] {
  const rate = audio.sampleRateHz
  const mono = toMono({ ...audio, channels: audio.channels.map((channel) => channel.subarray(startFrame, endFrame)) })
  const heard = heardStrikes(mono, rate, { isCoded })
  const hits = findHits(mono, rate, heard.strikes, lineOf({ findsLevel: true, waterLine: 0 }, heard.strikes), MIN_GAP_SECONDS)
  return hits.map(({ frame }) => startFrame + startFrameOf(frame, rate))
}

/** Slices that sound alike, by their places in the list, each in one group. */
export function alikeStretches(audio: Audio, stretches: readonly Stretch[]): number[][] {
  const rate = audio.sampleRateHz
  const mono = toMono(audio)
  const compared = stretches.slice(0, MOST_COMPARED)
  const portraits = hitPortraitsOf(mono, rate, compared.map(({ startFrame, endFrame }) => ({ onsetFrame: startFrame, endFrame }))) // prettier-ignore
  const joins = joinsOf(portraits.length, (a, b) => hitUnlikeness(portraits[a], portraits[b]))
  return groupsAfter(portraits.length, joins, dividingJoin(joins))
}
