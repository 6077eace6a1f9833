import { withStartTillers } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, PadStart, Start } from '@heliaster/core/kit'

import { makeId } from '../../documents/make-id'

/** A pad as it would be: the settings of a start, and its own name, family and all else that a start does not say. */
export function begunWith(pad: Pad, start: PadStart): Pad {
  const { name, family, group, rootNote, bus, mute } = pad.own
  const own = { name, family, group, rootNote, bus, mute }
  const kept = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined))
  return { ...pad, own: { ...start, ...kept } }
}

/** Pads to be, begun with a start, and the edits that let its tillers move them once they are there. */
export function begunPads(kit: Kit, pads: readonly Pad[], start: Start | undefined): { readonly pads: Pad[]; readonly edits: KitEdit[] } {
  if (!start?.pad) return { pads: [...pads], edits: [] }
  const tillers = start.tillers?.length ? withStartTillers(makeId, kit, start.tillers, pads.map(({ id }) => id)) : undefined // prettier-ignore
  const begun = (pad: Pad): Pad => ({ ...pad, own: { ...pad.own, ...begunWith(pad, start.pad!).own } })
  return { pads: pads.map(begun), edits: tillers ? [{ type: 'setKit', fields: { tillers } }] : [] }
}
