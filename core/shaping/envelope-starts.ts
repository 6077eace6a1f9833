import type { Envelope, EnvelopePoint } from '../kit'
import { rounded } from './envelope-edits'
import type { Layer } from './envelope-edits'

/** An envelope to begin with, named by what it does. */
export interface EnvelopeStart {
  readonly name: string
  /** Made for a hit of so many seconds. */
  readonly make: (hitSeconds: number) => Envelope
}

type Place = readonly [seconds: number, value: number, bend?: number]
const drawn = (places: readonly Place[], more: Omit<Envelope, 'points'> = {}): Envelope => ({
  points: places.map(([seconds, value, bend = 0]): EnvelopePoint => ({ seconds: rounded(seconds, 5), value, bend })),
  ...more,
})
/** No longer than a share of the hit, for what is over early. */
const early = (seconds: number, hit: number, share = 0.5) => Math.min(seconds, hit * share)

const LEVEL: readonly EnvelopeStart[] = [
  { name: 'Tight', make: (hit) => drawn([[0, 1], [early(0.06, hit), 0, -0.35]]) },
  { name: 'Dies away', make: (hit) => drawn([[0, 1], [hit, 0, -0.45]]) },
  { name: 'Knock, then body', make: (hit) => drawn([[0, 1], [early(0.012, hit, 0.2), 0.45, -0.3], [hit, 0, -0.25]]) },
  { name: 'Loses its knock', make: (hit) => drawn([[0, 0], [early(0.02, hit, 0.3), 1, 0.2], [hit, 0, -0.2]]) },
  { name: 'Swells', make: (hit) => drawn([[0, 0], [hit * 0.85, 1, 0.35], [hit, 0, 0.3]]) },
  { name: 'Stops at once', make: (hit) => drawn([[0, 1], [hit * 0.6, 1], [hit * 0.6 + 0.004, 0]]) },
  { name: 'Twice', make: (hit) => drawn([[0, 1], [hit * 0.22, 0.15, -0.4], [hit * 0.25, 0.8, 0.2], [hit, 0, -0.4]]) },
] // prettier-ignore

const PITCH: readonly EnvelopeStart[] = [
  { name: 'Short drop', make: (hit) => drawn([[0, 1200], [early(0.03, hit), 0, -0.4]]) },
  { name: 'Deep drop', make: (hit) => drawn([[0, 4800], [early(0.008, hit, 0.2), 1200, -0.5], [early(0.09, hit), 0, -0.4]]) },
  { name: 'Sinks away', make: (hit) => drawn([[0, 300], [hit, -700, -0.2]]) },
  { name: 'Sags', make: (hit) => drawn([[0, 0], [early(0.02, hit, 0.2), 80, -0.2], [hit * 0.7, -60, -0.3]]) },
  { name: 'Rises', make: (hit) => drawn([[0, -500], [hit * 0.6, 0, 0.2]]) },
  { name: 'Trembles', make: (hit) => drawn(Array.from({ length: 17 }, (_, i): Place => [(hit * i) / 16, i === 0 || i === 16 ? 0 : i % 2 ? 60 : -60])) },
] // prettier-ignore

const FILTER: readonly EnvelopeStart[] = [
  { name: 'Closes fast', make: (hit) => drawn([[0, 1], [early(0.04, hit), 0, -0.4]]) },
  { name: 'Closes with the hit', make: (hit) => drawn([[0, 1], [hit, 0, -0.35]]) },
  { name: 'Opens', make: (hit) => drawn([[0, 0], [hit * 0.7, 1, 0.2]]) },
  { name: 'Opens and closes', make: (hit) => drawn([[0, 0], [early(0.05, hit, 0.3), 1, -0.2], [hit, 0, -0.3]]) },
] // prettier-ignore

/** What an envelope of a layer may begin as. */
export function envelopeStarts(layer: Layer): readonly EnvelopeStart[] {
  return layer === 'level' ? LEVEL : layer === 'pitch' ? PITCH : FILTER
}
