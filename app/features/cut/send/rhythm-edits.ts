import { playedGroove } from '@heliaster/core/groove/rhythm'
import type { Pace, PlayedStrike } from '@heliaster/core/groove/rhythm'
import type { Band, GrooveId, KitEdit, Pad, Source } from '@heliaster/core/kit'

import { makeId } from '../../../documents/make-id'
import type { CutHit } from '../bench/use-source-cut'

export interface RhythmChoice {
  readonly pace: Pace
  /** How far strikes go to the steps, 0..1. */
  readonly share: number
  readonly takesTempo: boolean
}

/** The groove that was played on the pads that its hits became; the kit takes its tempo where that is wanted. */
export function rhythmEdits(source: Source, hits: readonly CutHit[], pads: readonly Pad[], grooveId: GrooveId, { pace, share, takesTempo }: RhythmChoice): KitEdit[] {
  const groove = playedGroove(makeId, source.name.slice(0, 120), playedOn(source, hits, pads), pace, share)
  return [
    ...(takesTempo ? [{ type: 'setKit' as const, fields: { tempoBpm: pace.tempoBpm } }] : []),
    { type: 'putGroove', groove: { ...groove, id: grooveId } },
  ]
} // prettier-ignore

/** Which pad each hit became, when it was struck, and the velocity that plays it as loud. */
export function playedOn({ info }: Pick<Source, 'info'>, hits: readonly CutHit[], pads: readonly Pad[]): PlayedStrike[] {
  const byMarker = new Map(hits.map((item) => [item.marker.id as string, item]))
  const strikes = pads.flatMap((pad) =>
    pad.bands.flatMap((band, place) => {
      const own = band.turns.flatMap(({ clips }) => Object.values(clips).flatMap((clip) => (typeof clip === 'object' && clip.fromHit ? [byMarker.get(clip.fromHit.markerId)] : []))) // prettier-ignore
      const there = own.filter((item): item is CutHit => item?.hit !== undefined)
      const levels = there.map(({ hit }) => hit!.loudnessDb)
      return there.map(({ marker, hit }) => ({ padId: pad.id, seconds: marker.frame / info.sampleRateHz, velocity: velocityIn(pad.bands, place, hit!.loudnessDb, levels) })) // prettier-ignore
    }),
  )
  return strikes.sort((a, b) => a.seconds - b.seconds)
}

/** Where in the velocities of a band a hit of it stands, by how loud it is among the others; the louder the higher. */
function velocityIn(bands: readonly Band[], place: number, loudnessDb: number, levels: readonly number[]): number {
  const from = bands[place]!.fromVelocity
  const to = (bands[place + 1]?.fromVelocity ?? 128) - 1
  const [least, most] = [Math.min(...levels), Math.max(...levels)]
  if (bands.length === 1) return Math.max(1, Math.round(127 * 10 ** (Math.max(-40, loudnessDb - most) / 40)))
  return most - least < 0.5 ? Math.round((from + to) / 2) : Math.round(from + ((to - from) * (loudnessDb - least)) / (most - least))
}
