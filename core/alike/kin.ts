import { brightnessOf, lowestBandOf, unlikeness } from './portrait'
import type { Portrait } from './portrait'

/** What a sound is found by: its portrait, and the time until it stays 30 dB under its peak, s. */
export interface Sounding {
  readonly portrait: Portrait
  readonly decaySeconds: number
}

export const kinWays = ['brighter', 'darker', 'longer', 'shorter', 'lower', 'higher'] as const
export type KinWay = (typeof kinWays)[number]

/** A third of a band of 24, a fifth of the length, a band: takes of one strength differ by as much. */
const BRIGHTER_BY = 0.3
const LONGER_BY = 1.2
const LOWER_BY = 1

/** How far another lies in a direction, above 0 where it does. */
function further(way: KinWay, from: Sounding, to: Sounding): number {
  switch (way) {
    case 'brighter':
      return brightnessOf(to.portrait) - brightnessOf(from.portrait) - BRIGHTER_BY
    case 'darker':
      return brightnessOf(from.portrait) - brightnessOf(to.portrait) - BRIGHTER_BY
    case 'longer':
      return to.decaySeconds - LONGER_BY * from.decaySeconds
    case 'shorter':
      return from.decaySeconds - LONGER_BY * to.decaySeconds
    case 'lower':
      return lowestBandOf(from.portrait) - lowestBandOf(to.portrait) - LOWER_BY + 0.5
    case 'higher':
      return lowestBandOf(to.portrait) - lowestBandOf(from.portrait) - LOWER_BY + 0.5
  }
}

/** The others by likeness, the nearest first; with a way, only those that lie that way. */
export function kinOf<T>(query: Sounding, others: readonly T[], soundingOf: (other: T) => Sounding | undefined, way?: KinWay): T[] {
  const steps = kinSteps(query, others, soundingOf, way)
  for (;;) {
    const { done, value } = steps.next()
    if (done) return value
  }
}

const STEP = 100

/** The same in steps of a hundred, so that whoever asks can do something else in between; the last returns the order. */
export function* kinSteps<T>(
  query: Sounding,
  others: readonly T[],
  soundingOf: (other: T) => Sounding | undefined,
  way?: KinWay,
): Generator<void, T[], void> {
  const near: { readonly other: T; readonly unlike: number }[] = []
  for (const [i, other] of others.entries()) {
    if (i % STEP === STEP - 1) yield
    const sounding = soundingOf(other)
    if (!sounding || (way && further(way, query, sounding) <= 0)) continue
    near.push({ other, unlike: unlikeness(query.portrait, sounding.portrait) })
  }
  return near.sort((a, b) => a.unlike - b.unlike).map(({ other }) => other)
}
