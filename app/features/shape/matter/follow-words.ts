import { valueOf } from '@heliaster/core/kit'
import type { Kit, MatterStep, Pad, RayId } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'

/** Whether a step does something of its own at each note. */
const goesByNote = ({ kind, values }: MatterStep): boolean =>
  (kind === 'time' && (values.sameLength ?? 0) > 0) || (kind === 'resonances' && (values.followNote ?? 1) !== 1)

/** Why a step that goes by the note changes nothing yet; undefined where it does, or goes by none. */
export function whyNoNote(kit: Kit, pad: Pad, rayIds: readonly RayId[], step: MatterStep): string | undefined {
  if (!goesByNote(step)) return undefined
  const rays = pad.rays.filter(({ id }) => rayIds.includes(id))
  if (padSettings(kit, pad).rootNote === undefined || rays.every((ray) => valueOf(ray, 'keyTrack') === 0))
    return 'Nothing here follows the note yet: switch that on for the pad on the Board.'
  return pad.notes.length < 2 ? 'The pad has one note, so that this is not heard yet. Give it more on the Board.' : undefined
}
