import type { Band, KitEdit, Pad } from '@heliaster/core/kit'
import { evenEdges, proposeLevel, setCells } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'

import { bandsByLoudness } from './loudness-edges'

/**
 * Bands whose number has changed, spread again by the pad's own rule: evenly, or by their measured loudness. Edges that
 * were set by hand stay, as do those of bands whose loudness cannot tell.
 */
export async function refillEdits(pad: Pad, cells: Cells, bands: Band[]): Promise<KitEdit[]> {
  if (cells.isOwn) return [setCells(pad, cells, bands)]
  return [setCells(pad, cells, await respread(pad, cells, bands)), ...proposeLevel(pad, bands.length)]
}

async function respread(pad: Pad, cells: Cells, bands: Band[]): Promise<Band[]> {
  if (pad.spread === 'loudness') return (await bandsByLoudness({ ...cells, bands }).catch(() => undefined)) ?? bands
  if (pad.spread !== 'even') return bands
  const edges = evenEdges(bands.length)
  return bands.map((band, i) => ({ ...band, fromVelocity: edges[i] }))
}
