import type { Kit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import type { Sounded } from '../audio/engine/player'
import type { Soloed } from '../audio/engine/solo'
import { whySilent } from './why-silent'

/** A strike that is over, with the kit as it was: what it did can still be read from that. */
export interface Told {
  readonly number: number
  readonly kit: Kit
  readonly strike: Sounded
  /** Why it made no sound; nothing for one that did. */
  readonly why?: string
}

/** So many strikes are remembered. */
const MOST = 20

/** The last strikes of the kit that is open, the newest first. */
export const recentStrikes = createStore<{ readonly told: readonly Told[] }>(() => ({ told: [] }))

let count = 0

export function rememberStrikes(kit: Kit, sounded: readonly Sounded[], soloed: Soloed): void {
  const own = sounded.filter(({ padId }) => padId !== undefined).slice(-MOST)
  if (own.length === 0) return
  const newest = own.map((strike): Told => ({ number: ++count, kit, strike, why: reasonOf(kit, strike, soloed) })).reverse()
  recentStrikes.setState(({ told }) => ({ told: [...newest, ...told].slice(0, MOST) }))
}

/** As the pad itself says it, without the word that it is silent, which is said already. */
function reasonOf(kit: Kit, { padId, velocity, band, turn, voices }: Sounded, soloed: Soloed): string | undefined {
  if (voices > 0 || !padId) return undefined
  return whySilent(kit, { padId, velocity, band, turn }, soloed).replace(/^silent: /, '')
}

export const forgetStrikes = (): void => recentStrikes.setState({ told: [] })
