import type { Kit, PadId } from '@heliaster/core/kit'
import type { Act } from '@heliaster/core/performance'
import { whyStoppedWords } from '@heliaster/core/ties'
import type { Stopping } from '@heliaster/core/ties'
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

/** Something that was no strike and stopped what sounded, in words. */
export interface ToldStop {
  readonly number: number
  readonly frame: number
  readonly words: string
}

/** So many strikes are remembered, and what stopped meanwhile. */
const MOST = 20

/** The last strikes of the kit that is open and what else stopped anything, the newest first. */
export const recentStrikes = createStore<{ readonly told: readonly (Told | ToldStop)[] }>(() => ({ told: [] }))

let count = 0
/** Where controls and pressures stood last. */
const stood = new Map<number | PadId, number>()

export function rememberStrikes(kit: Kit, sounded: readonly Sounded[], soloed: Soloed): void {
  const own = sounded.filter(({ padId }) => padId !== undefined).slice(-MOST)
  if (own.length > 0) add(own.map((strike) => ({ number: ++count, kit, strike, why: reasonOf(kit, strike, soloed) })))
}

/** What stops by what was done that is no strike. */
export function rememberStops(kit: Kit, acts: readonly Act[]): void {
  const stops = acts.flatMap((act) => {
    const stopping = stoppingOf(act)
    return stopping ? whyStoppedWords(kit, stopping).map((words): ToldStop => ({ number: ++count, frame: act.frame, words })) : []
  })
  if (stops.length > 0) add(stops)
}

function stoppingOf(act: Act): Stopping | undefined {
  if (act.type === 'letGo' || act.type === 'stop') return act
  if (act.type !== 'control' && act.type !== 'press') return undefined
  const of = act.type === 'press' ? act.padId : act.control
  const before = stood.get(of) ?? 0
  stood.set(of, act.value)
  return { ...act, before }
}

const frameOf = (told: Told | ToldStop): number => ('strike' in told ? told.strike.frame : told.frame)

function add(more: readonly (Told | ToldStop)[]): void {
  recentStrikes.setState(({ told }) => {
    const all = [...told, ...more].sort((a, b) => frameOf(b) - frameOf(a) || b.number - a.number)
    let strikes = 0
    return { told: all.filter((one) => ('strike' in one ? strikes++ < MOST : strikes < MOST)) }
  })
}

/** As the pad itself says it, without the word that it is silent, which is said already. */
function reasonOf(kit: Kit, { padId, velocity, band, turn, voices }: Sounded, soloed: Soloed): string | undefined {
  if (voices > 0 || !padId) return undefined
  return whySilent(kit, { padId, velocity, band, turn }, soloed).replace(/^silent: /, '')
}

export const forgetStrikes = (): void => recentStrikes.setState({ told: [] })
