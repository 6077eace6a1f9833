import type { Clip, Kit, Pad } from '@heliaster/core/kit'

import type { Place } from '../whom/place'
import type { Slices } from './slices-view'

/** A clip whose slices are meant, and the ways to change it. */
export interface PlacedProps {
  readonly kit: Kit
  readonly pad: Pad
  readonly place: Place
  readonly sampleRateHz: number
  readonly onSlices: (slices: Slices) => void
  readonly onClips: (change: (clip: Clip) => Clip) => void
  readonly onDone: () => void
}
