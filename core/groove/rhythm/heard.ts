import type { HitPortrait } from '../../alike/amid'
import { thingsOfRhythm } from '../../alike/hits'
import { paceOf, placeInBar } from './pace'
import type { Pace, PlayedHit } from './pace'

/** A hit that was cut out of a played rhythm. */
export interface RhythmHit {
  readonly seconds: number
  /** Of its highest sample, dBFS. */
  readonly peakDb: number
  readonly centreHz: number
  readonly portrait: HitPortrait
}

export interface HeardRhythm {
  /** The hits of each thing that was struck, by their places in the list. */
  readonly things: readonly (readonly number[])[]
  /** Undefined where no pulse gathers the strikes. */
  readonly pace: Pace | undefined
}

/** What was struck and how it goes: first the pace by what sounds alike, then what is one thing by sound and place, and the pace again. */
export function heardRhythm(hits: readonly RhythmHit[]): HeardRhythm {
  const first = paceOf(played(hits, thingsOfRhythm(hits)))
  const things = thingsOfRhythm(hits.map(({ portrait, seconds }) => ({ portrait, place: first && placeInBar(first, seconds) })))
  return { things, pace: paceOf(played(hits, things)) }
}

function played(hits: readonly RhythmHit[], things: readonly (readonly number[])[]): PlayedHit[] {
  const thingOf = new Map(things.flatMap((group, thing) => group.map((i) => [i, thing] as const)))
  return hits.map(({ seconds, peakDb, centreHz }, i) => ({ seconds, strength: 10 ** (Math.max(-80, peakDb) / 40), thing: thingOf.get(i)!, centreHz: Math.max(40, centreHz) })) // prettier-ignore
}
