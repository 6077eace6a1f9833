import { padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { likewise } from '@heliaster/core/shaping'

/** What is set of a pad's responses is set on all pads that are shaped with it: each keeps what is its own besides. */
export function responsesOfAll(kit: Kit, pad: Pad, pads: readonly Pad[], edits: readonly KitEdit[]): KitEdit[] {
  const answering = (of: Pad) => ({ responses: padSettings(kit, of).responses, rays: of.rays })
  return edits.flatMap((edit) => {
    const after = edit.type === 'setPad' && edit.padId === pad.id ? edit.own.responses : undefined
    if (!after) return [edit]
    const others = pads.filter(({ id }) => id !== pad.id)
    return [
      edit,
      ...others.map((other): KitEdit => ({ type: 'setPad', padId: other.id, own: { responses: likewise(answering(pad), after, answering(other)) } })), // prettier-ignore
    ]
  })
}
