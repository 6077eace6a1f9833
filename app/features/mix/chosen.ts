import type { BusId, Kit, PadId } from '@heliaster/core/kit'

/** What of the mix is looked at closely: a pad, a bus, or the whole. */
export type Chosen = { readonly of: 'pad'; readonly id: PadId } | { readonly of: 'bus'; readonly id: BusId } | { readonly of: 'whole' }

export const WHOLE: Chosen = { of: 'whole' }

/** The same, as long as it is there. */
export function stillThere(kit: Kit, chosen: Chosen | undefined): Chosen | undefined {
  if (chosen?.of === 'pad') return kit.pads.some(({ id }) => id === chosen.id) ? chosen : undefined
  if (chosen?.of === 'bus') return kit.buses.some(({ id }) => id === chosen.id) ? chosen : undefined
  return chosen
}
