import { grooveBeats } from '@heliaster/core/groove'
import type { Groove } from '@heliaster/core/kit'
import { useState } from 'react'

import { END_PX } from '../strings/strings-layout'

/** A step is at least so wide where the whole lap is fitted; what does not fit is scrolled. */
const LEAST_STEP_PX = 18
const LEAST_PX = 6
const MOST_PX = 640
const FACTOR = 1.5

export interface Zoom {
  readonly pxPerBeat: number
  readonly isFitted: boolean
  setWidth(px: number): void
  by(way: 1 | -1): void
  fit(): void
}

/** How wide a beat is: the whole lap where it fits, until one comes closer or steps back. */
export function useZoom(groove: Groove): Zoom {
  const [width, setWidth] = useState(320)
  const [own, setOwn] = useState<number>()
  const fitted = Math.max((width - 2 * END_PX) / grooveBeats(groove), LEAST_STEP_PX * Math.min(groove.stepsPerBeat, 12))
  const pxPerBeat = own ?? Math.min(MOST_PX, fitted)
  return {
    pxPerBeat,
    isFitted: own === undefined,
    setWidth,
    by: (way) => setOwn(Math.min(MOST_PX, Math.max(LEAST_PX, pxPerBeat * FACTOR ** way))),
    fit: () => setOwn(undefined),
  }
}
