import { createBus } from '@heliaster/core/kit'
import type { BusId, Insert, KitEdit } from '@heliaster/core/kit'

import { makeId } from '../../../documents/make-id'

/** As the first start of a reverb, of which a return hears nothing else: said here, so that the table of all starts stays with the mix. */
export const ROOM: Pick<Insert, 'kind' | 'values' | 'choices'> = {
  kind: 'reverb',
  values: { size: 1, decaySeconds: 0.9, decayHigh: 0.6, mix: 1 },
  choices: {},
}

/** A return with a room in it, and nothing sent there yet. */
export function roomEdits(): { readonly busId: BusId; readonly edits: KitEdit[] } {
  const insert: Insert = { id: makeId<Insert['id']>('insert'), bypass: false, ...ROOM }
  const bus = { ...createBus(makeId<BusId>('bus'), 'Room'), isReturn: true, inserts: [insert] }
  return { busId: bus.id, edits: [{ type: 'putBus', bus }] }
}
