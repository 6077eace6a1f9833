import type { Kit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import type { Sounded } from '../audio/engine/player'

/** A strike that is over, with the kit as it was: what it did can still be read from that. */
export interface Told {
  readonly number: number
  readonly kit: Kit
  readonly strike: Sounded
}

/** So many strikes are remembered. */
const MOST = 20

/** The last strikes of the kit that is open, the newest first. */
export const recentStrikes = createStore<{ readonly told: readonly Told[] }>(() => ({ told: [] }))

let count = 0

export function rememberStrikes(kit: Kit, sounded: readonly Sounded[]): void {
  const own = sounded.filter(({ padId }) => padId !== undefined).slice(-MOST)
  if (own.length === 0) return
  const newest = own.map((strike): Told => ({ number: ++count, kit, strike })).reverse()
  recentStrikes.setState(({ told }) => ({ told: [...newest, ...told].slice(0, MOST) }))
}

export const forgetStrikes = (): void => recentStrikes.setState({ told: [] })
