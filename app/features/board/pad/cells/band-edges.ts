import type { BandId, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { setCellBand } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'

import { editKit } from '../../../../kit-view'
import { notify } from '../../../../ui/layout/notices'

/** The edges between the bands of cells: set by a drag, or typed, and then kept between their neighbours. */
export function edgesOf(kit: Kit, pad: Pad, cells: Cells) {
  const { bands } = cells
  /** Edges that were set by hand are no longer spread by a rule. */
  const asSet: KitEdit[] = cells.isOwn ? [] : [{ type: 'setPadFilling', padId: pad.id, spread: 'own' }]
  const set = (id: BandId, fromVelocity: number): KitEdit[] => [setCellBand(pad, cells, id, { fromVelocity }), ...asSet]
  const type = (index: number, velocity: number) => {
    if (index === 0) return void notify('The softest band always begins at velocity 1.')
    const low = bands[index - 1].fromVelocity + 1
    const high = (bands[index + 1]?.fromVelocity ?? 128) - 1
    const taken = Math.min(high, Math.max(low, Math.round(velocity)))
    if (taken !== velocity) notify(edgeWords(index, velocity, taken, low, high))
    editKit(kit.id, set(bands[index].id, taken), pad.id)
  }
  return { set, type }
}

/** Why an edge is not where it was typed. */
function edgeWords(index: number, typed: number, taken: number, low: number, high: number): string {
  if (Math.round(typed) === taken) return `Velocities are whole: band ${index + 1} begins at ${taken}.`
  const why =
    low === high ? `The softest band begins at ${low}` : `Band ${index + 1} can begin from ${low} to ${high}, between its neighbours`
  return `${why}: it is at ${taken}.`
}
