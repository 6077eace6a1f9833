import type { MakeId, PadId, TieId } from '../kit/ids'
import type { Kit, Tie } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { inOrderOfOpening, padsOfTie } from './lines'
import type { LineKind } from './lines'

type TieOf<Kind extends Tie['kind']> = Extract<Tie, { kind: Kind }>

const FADE_SECONDS = 0.008
const SHARED_STRIKES = 4
/** The foot of a hat is this controller, by the MIDI standard. */
const FOOT = 4

/**
 * The edits that tie one pad to another, as a line drawn from the one to the other says it: an own tie is made, or the other
 * pad comes into one that `from` has. None where they are tied so already, or a pad cannot be tied so to itself.
 */
export function drawnTie(makeId: MakeId, kit: Kit, kind: LineKind, from: PadId, to: PadId): KitEdit[] {
  if (from === to && kind !== 'choke') return []
  const tie = MAKERS[kind](makeId, kit, from, to)
  return tie ? [...(kind === 'chokeGroup' ? leavingGroups(kit, to, tie.id) : []), { type: 'putTie', tie }] : []
}

/** Ties one pad to another where they are not tied so yet, and else takes the other out. */
export function toggledTie(makeId: MakeId, kit: Kit, kind: LineKind, from: PadId, to: PadId): KitEdit[] {
  const tie = tieOfPad(kit, kind, from)
  return tie && padsOfTie(tie).includes(to) ? withoutPadInTie(tie, to) : drawnTie(makeId, kit, kind, from, to)
}

/** The tie of a kind that counts for a pad: the first that it begins, or that it is in. */
export function tieOfPad<Kind extends LineKind>(kit: Kit, kind: Kind, padId: PadId): TieOf<Kind> | undefined {
  return firstOf(kit, kind, (tie) => ('from' in tie ? tie.from === padId : padsOfTie(tie).includes(padId)))
}

/** Puts a pad into a choke group, a new one, or none; a pad is in one group at a time. */
export function inChokeGroup(makeId: MakeId, kit: Kit, padId: PadId, groupId: TieId | 'none' | 'new'): KitEdit[] {
  const group = firstOf(kit, 'chokeGroup', ({ id }) => id === groupId)
  const left = leavingGroups(kit, padId, group?.id)
  if (groupId === 'new') return [...left, { type: 'putTie', tie: newGroup(makeId, kit, [padId]) }]
  if (!group || group.pads.includes(padId)) return left
  return [...left, { type: 'putTie', tie: { ...group, pads: [...group.pads, padId] } }]
}

function newGroup(makeId: MakeId, kit: Kit, pads: PadId[]): TieOf<'chokeGroup'> {
  return { id: makeId<TieId>('tie'), kind: 'chokeGroup', name: freeName(kit, 'Group'), pads, fadeSeconds: FADE_SECONDS }
}

type Maker = (makeId: MakeId, kit: Kit, from: PadId, to: PadId) => Tie | undefined

const MAKERS: Readonly<Record<LineKind, Maker>> = {
  choke(makeId, kit, from, to) {
    const tie = firstOf(kit, 'choke', (one) => one.from === from && !one.reach && (one.on ?? 'strike') === 'strike')
    if (tie?.to.includes(to)) return undefined
    return tie ? { ...tie, to: [...tie.to, to] } : { id: makeId<TieId>('tie'), kind: 'choke', from, to: [to], fadeSeconds: FADE_SECONDS }
  },
  alsoStrike(makeId, kit, from, to) {
    const tie = firstOf(kit, 'alsoStrike', (one) => one.from === from)
    const added = { pad: to, chance: 1, gainDb: 0, delaySeconds: 0 }
    if (tie?.to.some(({ pad }) => pad === to)) return undefined
    return tie ? { ...tie, to: [...tie.to, added] } : { id: makeId<TieId>('tie'), kind: 'alsoStrike', from, to: [added], passOn: false }
  },
  chokeGroup: (makeId, kit, from, to) => joined(kit, 'chokeGroup', from, to, () => newGroup(makeId, kit, [from, to])),
  limit: (makeId, kit, from, to) =>
    joined(kit, 'limit', from, to, () => ({
      id: makeId<TieId>('tie'), kind: 'limit', name: freeName(kit, 'Limit'), pads: [from, to], maxStrikes: SHARED_STRIKES,
    })), // prettier-ignore
  takeTurns: (makeId, kit, from, to) =>
    joined(kit, 'takeTurns', from, to, () => ({ id: makeId<TieId>('tie'), kind: 'takeTurns', pads: [from, to], pick: 'cycle' })),
  openings(makeId, kit, from, to) {
    const tie = firstOf(kit, 'openings', ({ steps }) => steps.some(({ pad }) => pad === from))
    const pads = tie ? inOrderOfOpening(tie) : [from]
    if (pads.includes(to)) return undefined
    const made: TieOf<'openings'> = tie ?? { id: makeId<TieId>('tie'), kind: 'openings', controller: FOOT, steps: [], chokeAt: 0 }
    return { ...made, steps: evenSteps([...pads, to]) }
  },
}

/** Thresholds that lie evenly over the controller, in the order of opening. */
export function evenSteps(pads: readonly PadId[]): TieOf<'openings'>['steps'] {
  return pads.map((pad, place) => ({ pad, from: Math.round((128 * place) / pads.length) }))
}

type Row = TieOf<'chokeGroup'> | TieOf<'limit'> | TieOf<'takeTurns'>

/** `to` comes into the row that `from` is in, else `from` into that of `to`, else a new one is made. */
function joined(kit: Kit, kind: Row['kind'], from: PadId, to: PadId, made: () => Row): Row | undefined {
  const rowOf = (pad: PadId) => firstOf(kit, kind, ({ pads }) => pads.includes(pad))
  const own = rowOf(from)
  if (own) return own.pads.includes(to) ? undefined : { ...own, pads: [...own.pads, to] }
  const other = rowOf(to)
  return other ? { ...other, pads: [...other.pads, from] } : made()
}

/** A pad is in one choke group alone: it leaves the others. */
function leavingGroups(kit: Kit, pad: PadId, kept: TieId | undefined): KitEdit[] {
  return kit.ties.flatMap((tie) =>
    tie.kind === 'chokeGroup' && tie.id !== kept && tie.pads.includes(pad) ? withoutPadInTie(tie, pad) : [],
  )
}

/** A tie without one of its pads; gone where nothing is left to tie. */
export function withoutPadInTie(tie: Tie, padId: PadId): KitEdit[] {
  const left = shortened(tie, padId)
  return [left ? { type: 'putTie', tie: left } : { type: 'removeTie', tieId: tie.id }]
}

function shortened(tie: Tie, padId: PadId): Tie | undefined {
  switch (tie.kind) {
    case 'choke': {
      const to = tie.to.filter((pad) => pad !== padId)
      return to.length > 0 ? { ...tie, to } : undefined
    }
    case 'alsoStrike': {
      const to = tie.to.filter(({ pad }) => pad !== padId)
      return to.length > 0 ? { ...tie, to } : undefined
    }
    case 'openings': {
      const pads = inOrderOfOpening(tie).filter((pad) => pad !== padId)
      return pads.length > 1 ? { ...tie, steps: tie.steps.filter(({ pad }) => pad !== padId) } : undefined
    }
    case 'chokeGroup': {
      const pads = tie.pads.filter((pad) => pad !== padId)
      return pads.length > 0 ? { ...tie, pads } : undefined // a group of one keeps its name and fade for the next
    }
    case 'limit':
    case 'takeTurns': {
      const pads = tie.pads.filter((pad) => pad !== padId)
      return pads.length > 1 ? { ...tie, pads } : undefined
    }
    case 'spots': {
      const spots = tie.spots.filter(({ pad }) => pad !== padId)
      return spots.length > 1 ? { ...tie, spots } : undefined
    }
    case 'parts': {
      const parts = tie.parts.filter(({ pad }) => pad !== padId)
      return parts.length > 0 ? { ...tie, parts } : undefined
    }
  }
}

/** All that strikes along, in every pad, taken away. */
export function withoutAlong(kit: Kit): KitEdit[] {
  return kit.ties.flatMap((tie): KitEdit[] => (tie.kind === 'alsoStrike' ? [{ type: 'removeTie', tieId: tie.id }] : []))
}

function freeName(kit: Kit, word: string): string {
  const names = new Set(kit.ties.map((tie) => ('name' in tie ? tie.name : '')))
  let number = 1
  while (names.has(`${word} ${number}`)) number++
  return `${word} ${number}`
}

function firstOf<Kind extends Tie['kind']>(kit: Kit, kind: Kind, holds: (tie: TieOf<Kind>) => boolean): TieOf<Kind> | undefined {
  return kit.ties.find((tie): tie is TieOf<Kind> => tie.kind === kind && holds(tie as TieOf<Kind>))
}
