import type { Kit, KitEdit, PadId, Tie, TieId } from '@heliaster/core/kit'

import { makeId } from '../../../documents/make-id'

type TieOf<Kind extends Tie['kind']> = Extract<Tie, { kind: Kind }>

function first<Kind extends Tie['kind']>(kit: Kit, kind: Kind, has: (tie: TieOf<Kind>) => boolean): TieOf<Kind> | undefined {
  return kit.ties.find((tie): tie is TieOf<Kind> => tie.kind === kind && has(tie as TieOf<Kind>))
}

/** What a strike of a pad strikes along. */
export const alongOf = (kit: Kit, padId: PadId): TieOf<'alsoStrike'> | undefined => first(kit, 'alsoStrike', ({ from }) => from === padId)
/** The pads that answer as one with it, and those that a controller opens with it. */
export const turnsOf = (kit: Kit, padId: PadId): TieOf<'takeTurns'> | undefined =>
  first(kit, 'takeTurns', ({ pads }) => pads.includes(padId))
export const openingsOf = (kit: Kit, padId: PadId): TieOf<'openings'> | undefined =>
  first(kit, 'openings', ({ steps }) => steps.some(({ pad }) => pad === padId))

/** The foot of a hat is this controller, by the MIDI standard. */
const FOOT = 4

/** Lets a pad strike another along, or no more. */
export function toggleAlong(kit: Kit, padId: PadId, other: PadId): KitEdit[] {
  const tie = alongOf(kit, padId)
  const added = { pad: other, chance: 1, gainDb: 0, delaySeconds: 0 }
  if (!tie) return [{ type: 'putTie', tie: { id: makeId<TieId>('tie'), kind: 'alsoStrike', from: padId, to: [added], passOn: false } }]
  const to = tie.to.some(({ pad }) => pad === other) ? tie.to.filter(({ pad }) => pad !== other) : [...tie.to, added]
  return [to.length > 0 ? { type: 'putTie', tie: { ...tie, to } } : { type: 'removeTie', tieId: tie.id }]
}

/** Takes another pad into those that take turns with one, or out of them. */
export function toggleTurns(kit: Kit, padId: PadId, other: PadId): KitEdit[] {
  const tie = turnsOf(kit, padId)
  if (!tie) return [{ type: 'putTie', tie: { id: makeId<TieId>('tie'), kind: 'takeTurns', pads: [padId, other], pick: 'cycle' } }]
  const pads = tie.pads.includes(other) ? tie.pads.filter((id) => id !== other) : [...tie.pads, other]
  return [pads.length > 1 ? { type: 'putTie', tie: { ...tie, pads } } : { type: 'removeTie', tieId: tie.id }]
}

/** Takes another pad into those that a controller opens, or out of them; thresholds lie evenly, in the order of opening. */
export function toggleOpening(kit: Kit, padId: PadId, other: PadId): KitEdit[] {
  const tie = openingsOf(kit, padId)
  const pads = tie ? [...tie.steps].sort((a, b) => a.from - b.from).map(({ pad }) => pad) : [padId]
  const changed = pads.includes(other) ? pads.filter((id) => id !== other) : [...pads, other]
  if (changed.length < 2) return tie ? [{ type: 'removeTie', tieId: tie.id }] : []
  const steps = changed.map((pad, place) => ({ pad, from: Math.round((128 * place) / changed.length) }))
  const made: TieOf<'openings'> = tie ?? { id: makeId<TieId>('tie'), kind: 'openings', controller: FOOT, steps: [], chokeAt: 0 }
  return [{ type: 'putTie', tie: { ...made, steps } }]
}
