import { whyWords } from '@heliaster/core/ties'
import type { Kit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import type { Sounded } from '../audio/engine/player'

/** A strike that is over, in words. */
export interface Told {
  readonly number: number
  /** The engine's frame, and the page's clock as it was told, ms since 1970. */
  readonly frame: number
  readonly at: number
  readonly words: readonly string[]
}

/** So many strikes are remembered in words. */
const MOST = 20

/** The last strikes of the kit that is open, the newest first: why each sounded and what it stopped. */
export const recentStrikes = createStore<{ readonly told: readonly Told[] }>(() => ({ told: [] }))

let count = 0

/** Tells strikes while what they did can still be read from the kit as it was. */
export function tellStrikes(kit: Kit, sounded: readonly Sounded[]): void {
  const at = Date.now()
  const told = sounded
    .filter(({ padId }) => padId !== undefined)
    .slice(-MOST)
    .map((strike): Strike => ({ number: ++count, frame: strike.frame, at, kit, strike }))
  if (told.length > 0) recentStrikes.setState(({ told: before }) => ({ told: [...told.map(inWords).reverse(), ...before].slice(0, MOST) }))
}

interface Strike extends Omit<Told, 'words'> {
  readonly kit: Kit
  readonly strike: Sounded
}

const inWords = ({ kit, strike, ...told }: Strike): Told => ({ ...told, words: whyWords(kit, strike) })

export const forgetStrikes = (): void => recentStrikes.setState({ told: [] })
