import type { MakeId, PadId } from '../kit/ids'
import type { Band, Kit } from '../kit/kit'
import { applyEdit } from '../kit/kit-edit'
import type { KitEdit } from '../kit/kit-edit'
import { isEmptyPad, padById } from '../kit/resolve'
import { leaderOf, spotsOf, withSpot, withSpotName } from './spots'
import type { SpotsTie } from './spots'

const [LEFT, RIGHT] = ['Left', 'Right']

export interface Feet {
  readonly left: PadId
  readonly right: PadId
  /** Whether each has turns of its own; else both draw from those of the left one. */
  readonly areApart: boolean
}

/** The two feet that a pad is one of; nothing where it is none. */
export function feetOf(kit: Kit, padId: PadId): Feet | undefined {
  const drum = spotsOf(kit, padId)
  const [left, right] = drum?.spots ?? []
  if (drum?.spots.length !== 2 || left!.name !== LEFT || right!.name !== RIGHT) return undefined
  const [one, other] = [padById(kit, left!.pad), padById(kit, right!.pad)]
  return one && other ? { left: one.id, right: other.id, areApart: !isEmptyPad(other) } : undefined
}

/**
 * A second pad beside one, for two fingers that walk like two feet: it borrows, so that both draw from the same turns, and these
 * are shuffled: no two alike follow each other, whichever foot comes down. None where the kit is full or the pad is of a drum.
 */
export function twoFeet(makeId: MakeId, kit: Kit, padId: PadId): KitEdit[] | undefined {
  if (spotsOf(kit, padId)) return undefined
  const made = withSpot(makeId, kit, padId, RIGHT)
  if (!made) return undefined
  const drum = spotsOf(made.edits.reduce(applyEdit, kit), padId) as SpotsTie
  return [...made.edits, ...withSpotName(drum, leaderOf(drum), LEFT), { type: 'setPad', padId, own: { pick: 'shuffle' } }]
}

/** Every second turn of each band goes to the right foot; a band of one stays with both. */
export function feetApart(kit: Kit, { left, right }: Feet): KitEdit[] {
  const pad = padById(kit, left)!
  const share = (foot: number) =>
    pad.bands.map((band): Band => ({
      ...band,
      turns: band.turns.length < 2 ? band.turns : band.turns.filter((_turn, i) => i % 2 === foot),
    }))
  return [left, right].map((padId, foot) => ({ type: 'setPadFilling', padId, rays: pad.rays, bands: share(foot), spread: pad.spread }))
}

/** Both draw from one pool again: the turns of the right foot come between those of the left one. */
export function feetTogether(kit: Kit, { left, right }: Feet): KitEdit[] {
  const [one, other] = [padById(kit, left)!, padById(kit, right)!]
  const bands = one.bands.map((band, i): Band => {
    const known = new Set(band.turns.map(({ id }) => id))
    const more = (other.bands[i]?.turns ?? []).filter(({ id }) => !known.has(id))
    const turns = Array.from({ length: Math.max(band.turns.length, more.length) }, (_, k) =>
      [band.turns[k] ?? [], more[k] ?? []].flat(),
    ).flat()
    return { ...band, turns }
  })
  return [
    { type: 'setPadFilling', padId: left, rays: one.rays, bands, spread: one.spread },
    { type: 'setPadFilling', padId: right, rays: other.rays, bands: [], spread: other.spread },
  ]
}
