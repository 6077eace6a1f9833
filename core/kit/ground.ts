import type { Kit } from './kit'
import { padById, padSettings } from './resolve'
import type { PadId } from './ids'

/** What holds single settings, each inherited by itself: one that is absent holds none. */
const sparse: ReadonlySet<string> = new Set(['values', 'choices', 'envelopes', 'repairs'])

/**
 * What an absent part of a kit stands for: a pad's responses and its order of stages are its leader's or the usual ones,
 * a list of slices is empty, and where nothing is set there is nothing.
 */
export function kitGround(kit: Kit, at: readonly string[]): unknown {
  const last = at[at.length - 1]!
  if (sparse.has(last)) return {}
  if (at[0] !== 'pads' || at.length !== 4 || at[2] !== 'own' || (last !== 'responses' && last !== 'order')) return undefined
  const pad = padById(kit, at[1] as PadId)
  return pad && padSettings(kit, pad)[last]
}
