import { broadFamily } from '../kit/families'
import type { BroadFamily, Family } from '../kit/families'
import type { MakeId, PadId, TieId } from '../kit/ids'
import type { Kit, Pad, Tie } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { createPad, freeNote } from '../kit/make'
import { padById, padSettings } from '../kit/resolve'
import { withoutPadInTie } from './edits'

export type SpotsTie = Extract<Tie, { kind: 'spots' }>

/** Where a drum of a family is struck; the first is where it mostly is. */
const SPOTS: Readonly<Partial<Record<BroadFamily | Family, readonly string[]>>> = {
  snare: ['Head', 'Rim', 'Shell'],
  tom: ['Head', 'Rim'],
  kick: ['Head', 'Rim'],
  hat: ['Bow', 'Edge', 'Cup'],
  cymbal: ['Bow', 'Edge', 'Cup'],
  bell: ['Mouth', 'Shoulder'],
  wood: ['Middle', 'End'],
}
const ANY = ['Middle', 'Edge', 'Side']
const MOST_SPOTS = 32

/** The spots that a drum of this kind may have. */
export function spotsProposed(family: Family): readonly string[] {
  return SPOTS[family] ?? SPOTS[broadFamily(family)] ?? ANY
}

/** The spots of the drum that a pad is one of; the first tie that names it counts. */
export function spotsOf(kit: Kit, padId: PadId): SpotsTie | undefined {
  return kit.ties.find((tie): tie is SpotsTie => tie.kind === 'spots' && tie.spots.some(({ pad }) => pad === padId))
}

/** The pad whose settings the other spots of a drum take: the first. */
export const leaderOf = ({ spots }: SpotsTie): PadId => spots[0]!.pad

/**
 * One more spot on the drum of a pad, on a pad of its own that leans on the drum's first one; the drum is made where the pad is
 * none yet. It comes last of all, so that the keys of the others stay. `existing` takes a pad that is there: what fills it and what is set on it stays. None where the kit is full.
 */
export function withSpot(
  makeId: MakeId,
  kit: Kit,
  padId: PadId,
  name: string,
  existing?: PadId,
): { readonly edits: KitEdit[]; readonly spotId: PadId } | undefined {
  const pad = padById(kit, padId)
  if (!pad || existing === padId || kit.pads.length >= 128) return undefined
  const drum = spotsOf(kit, padId) ?? newDrum(makeId, kit, pad)
  if (drum.spots.length >= MOST_SPOTS || drum.spots.some((spot) => spot.pad === existing)) return undefined
  const leader = padById(kit, leaderOf(drum))!
  const made = existing ? undefined : spotPad(makeId, kit, leader, name)
  const spotId = existing ?? made!.id
  const elsewhere = existing ? spotsOf(kit, existing) : undefined
  return {
    spotId,
    edits: [
      ...(made ? [{ type: 'addPad', pad: made, index: kit.pads.length } satisfies KitEdit] : []),
      ...(elsewhere && existing ? withoutPadInTie(elsewhere, existing) : []),
      { type: 'putTie', tie: { ...drum, spots: [...drum.spots, { pad: spotId, name }] } },
    ],
  }
}

function newDrum(makeId: MakeId, kit: Kit, pad: Pad): SpotsTie {
  const { name, family } = padSettings(kit, pad)
  return { id: makeId<TieId>('tie'), kind: 'spots', name, spots: [{ pad: pad.id, name: spotsProposed(family)[0]! }] }
}

/** An empty pad that takes every setting but its name from the leader. */
function spotPad(makeId: MakeId, kit: Kit, leader: Pad, name: string): Pad {
  const pad = createPad(makeId, {}, freeNote(kit))
  return { ...pad, own: { name: `${padSettings(kit, leader).name} ${name.toLowerCase()}`.trim().slice(0, 120) }, leansOn: leader.id }
}

/** A spot by another name. */
export function withSpotName(drum: SpotsTie, padId: PadId, name: string): KitEdit[] {
  return [{ type: 'putTie', tie: { ...drum, spots: drum.spots.map((spot) => (spot.pad === padId ? { ...spot, name } : spot)) } }]
}

/** A pad leaves its drum and stays as it sounds; where it was the first the next one leads. */
export function withoutSpot(kit: Kit, padId: PadId): KitEdit[] {
  const drum = spotsOf(kit, padId)
  return drum ? withoutPadInTie(drum, padId) : []
}

export interface ShownDrum {
  /** One pad, or the spots of a drum. */
  readonly pads: readonly Pad[]
  readonly drum?: SpotsTie
  /** For each spot the pads to which it opens: they sound from its face and have none of their own. */
  readonly behind: readonly (readonly Pad[])[]
}

/** Pads as the board shows them: one by one, the spots of a drum together where the first of them stands, their openings behind them. */
export function drumsOf(kit: Kit): ShownDrum[] {
  const together = new Map<PadId, SpotsTie>()
  for (const tie of kit.ties) if (tie.kind === 'spots') for (const { pad } of tie.spots) if (!together.has(pad)) together.set(pad, tie)
  const behind = openedBy(kit, together)
  const hidden = new Set([...behind.values()].flat())
  const shown = new Set<SpotsTie>()
  return kit.pads.flatMap((pad): ShownDrum[] => {
    const drum = together.get(pad.id)
    if (hidden.has(pad)) return []
    if (!drum) return [{ pads: [pad], behind: [[]] }]
    if (shown.has(drum)) return []
    shown.add(drum)
    const pads = drum.spots.flatMap((spot) => (together.get(spot.pad) === drum ? (padById(kit, spot.pad) ?? []) : []))
    return [{ pads, behind: pads.map(({ id }) => behind.get(id) ?? []), ...(pads.length > 1 ? { drum } : {}) }]
  })
}

/** The pads to which each spot opens, by the openings that count for it; those that are spots themselves stand on their own. */
function openedBy(kit: Kit, spots: ReadonlyMap<PadId, SpotsTie>): Map<PadId, Pad[]> {
  const taken = new Set<PadId>()
  const opened = new Map<PadId, Pad[]>()
  for (const spot of spots.keys()) {
    const tie = kit.ties.find((one) => one.kind === 'openings' && one.steps.some(({ pad }) => pad === spot))
    if (tie?.kind !== 'openings') continue
    const pads = tie.steps.flatMap(({ pad }) => (spots.has(pad) || taken.has(pad) ? [] : (padById(kit, pad) ?? [])))
    for (const { id } of pads) taken.add(id)
    opened.set(spot, pads)
  }
  return opened
}
