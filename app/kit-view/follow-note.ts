import { valueOf } from '@heliaster/core/kit'
import type { KitEdit, Pad, PadSettings, RayId } from '@heliaster/core/kit'

/** A pad sounds as it was recorded at its own note, where nothing else is said. */
export const ownRoot = (pad: Pad, { rootNote }: Pick<PadSettings, 'rootNote'>): number => rootNote ?? pad.notes[0] ?? 60

/** What makes rays of a pad follow the note: a root where it has none, and all of them where none of these follows yet. */
export function followEdits(pad: Pad, settings: PadSettings, rayIds: readonly RayId[]): KitEdit[] {
  const rays = pad.rays.filter(({ id }) => rayIds.includes(id))
  const isNone = rays.every((ray) => valueOf(ray, 'keyTrack') === 0)
  return [
    ...(settings.rootNote === undefined ? [{ type: 'setPad' as const, padId: pad.id, own: { rootNote: ownRoot(pad, settings) } }] : []),
    ...(isNone ? rays.map(({ id }): KitEdit => ({ type: 'setRay', padId: pad.id, rayId: id, fields: { values: { keyTrack: 1 } } })) : []),
  ]
}
