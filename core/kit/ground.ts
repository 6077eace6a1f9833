import type { Kit } from './kit'
import { padById, padSettings } from './resolve'
import type { PadId, RayId } from './ids'

/**
 * What an absent part of a kit stands for: a pad's shape and responses are its leader's or the usual ones, a section of a
 * ray's shape is the pad's, repairs are none.
 */
export function kitGround(kit: Kit, at: readonly string[]): unknown {
  const last = at[at.length - 1]
  if (last === 'repairs') return {}
  if (at[0] !== 'pads') return undefined
  const pad = padById(kit, at[1] as PadId)
  if (!pad) return undefined
  if (at.length === 4 && at[2] === 'own' && (last === 'shape' || last === 'responses')) return padSettings(kit, pad)[last]
  if (last === 'shape') return {}
  if (last !== 'filter' || at[at.length - 2] !== 'shape') return undefined
  const ray = pad.rays.find((one) => one.id === (at[3] as RayId))
  return { ...padSettings(kit, pad).shape, ...ray?.shape }.filter
}
