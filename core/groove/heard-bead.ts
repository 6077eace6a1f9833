import { parameterRow, valueOf } from '../kit/parameters'
import type { Parameter } from '../kit/parameters'
import type { Bead } from '../kit/grooves'
import type { Kit, Pad } from '../kit/kit'
import { padSettings } from '../kit/resolve'

/**
 * A pad as one of its beads strikes it, by itself: the band and turn that the bead asks for, its clip, and the parameters that are
 * set for it alone. For hearing a bead whatever its laps, chance and the other beads say.
 */
export function padOfBead(kit: Kit, pad: Pad, bead: Bead): Pad {
  const asked = withCell(pad, bead)
  const own = (bead.locks ?? []).filter(({ ray }) => ray === undefined)
  const values = { ...padSettings(kit, pad).values, ...asked.own.values }
  for (const { param, value, mode } of own) values[param] = lockedValue(param, valueOf({ values }, param), value, mode)
  const rays = asked.rays.map((ray) => {
    const locks = (bead.locks ?? []).filter((lock) => lock.ray === ray.id)
    if (locks.length === 0) return ray
    const set = { ...ray.values }
    for (const { param, value, mode } of locks) set[param] = lockedValue(param, valueOf({ values: set }, param), value, mode)
    return { ...ray, values: set }
  })
  return { ...asked, rays, own: { ...asked.own, values } }
}

/** What a parameter is for a bead that sets it, or moves it by so much: by cents or octaves where the table says so. */
function lockedValue(param: Parameter, from: number, value: number, mode: 'set' | 'add'): number {
  const { min, max, movedBy } = parameterRow(param)
  const moved = movedBy === 'cents' ? from * 2 ** (value / 1200) : movedBy === 'octaves' ? from * 2 ** value : from + value
  return Math.min(max, Math.max(min, mode === 'set' ? value : moved))
}

/** The pad with the cell alone that the bead asks for, the others out of the way; as it is where it asks for none. */
function withCell(pad: Pad, bead: Bead): Pad {
  const band = pad.bands.find(({ id, turns }) => id === bead.band || turns.some((turn) => turn.id === bead.turn))
  const only = band && { ...band, fromVelocity: 1, blendVelocities: 0, turns: bead.turn ? band.turns.filter(({ id }) => id === bead.turn) : band.turns }
  const bands = only ? [only] : pad.bands
  const { clip } = bead
  if (!clip) return { ...pad, bands }
  const clipped = bands.map((one) => ({ ...one, turns: one.turns.map((turn) => ({ ...turn, clips: { [pad.rays[0]!.id]: clip } })) })) // prettier-ignore
  return { ...pad, bands: clipped }
} // prettier-ignore
