import type { Kit, PadId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { releasePad, strikePad } from '../engine/sound'

/** Whether the round runs. */
export const roundState = createStore<{ running: boolean }>(() => ({ running: false }))

interface RoundStep {
  readonly afterMs: number
  readonly velocity: number
  /** How many pads on from the one that is worked on: neighbours are heard with it. */
  readonly neighbour?: number
}

const SOFT = 30
const MIDDLE = 76
const LOUD = 122
const KEY = 910

/** Soft, middle, loud, fast repeats, then the pad between its neighbours. */
const ROUND: readonly RoundStep[] = [
  { afterMs: 0, velocity: SOFT },
  { afterMs: 480, velocity: MIDDLE },
  { afterMs: 480, velocity: LOUD },
  ...[700, 110, 110, 110, 110, 110].map((afterMs, i) => ({ afterMs, velocity: i % 2 === 0 ? 96 : 70 })),
  { afterMs: 600, velocity: MIDDLE, neighbour: -1 },
  { afterMs: 240, velocity: MIDDLE },
  { afterMs: 240, velocity: MIDDLE, neighbour: 1 },
  { afterMs: 240, velocity: MIDDLE },
]
const PAUSE_MS = 900

let timer: ReturnType<typeof setTimeout> | undefined

/** Runs over and over on the pad that is worked on, whatever is changed meanwhile, until it is stopped. */
export function toggleRound(kitNow: () => Kit | undefined, padNow: () => PadId | undefined): void {
  if (roundState.getState().running) return stopRound()
  roundState.setState({ running: true })
  const step = (at: number) => {
    const { velocity, neighbour = 0 } = ROUND[at]
    const pads = kitNow()?.pads ?? []
    const own = Math.max(0, pads.findIndex(({ id }) => id === padNow())) // prettier-ignore
    const pad = pads.length > 0 ? pads[(own + neighbour + pads.length) % pads.length] : undefined
    if (pad) {
      strikePad({ padId: pad.id, velocity, key: KEY })
      setTimeout(() => releasePad(pad.id, KEY), 160)
    }
    const next = (at + 1) % ROUND.length
    timer = setTimeout(() => step(next), next === 0 ? PAUSE_MS : ROUND[next].afterMs)
  }
  step(0)
}

export function stopRound(): void {
  clearTimeout(timer)
  roundState.setState({ running: false })
}
