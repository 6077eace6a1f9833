import { createBand, freeNote } from '@heliaster/core/kit'
import type { Band, Kit, KitEdit, Pad, PadId, TieId } from '@heliaster/core/kit'
import { copiedFilling, evenEdges, MOST_TURNS, ontoRays, proposeLevel, setCells } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'

import { makeId } from '../../../documents/make-id'

/** The same turns laid out anew: each its own band, all in one band, or the bands at even edges. */
export function spreadEdits(pad: Pad, cells: Cells, how: 'bands' | 'turns' | 'even'): KitEdit[] {
  const bands = spreadBands(cells.bands, how)
  // Velocity's share of the level is proposed anew, where nobody has set another.
  return [setCells(pad, cells, bands, 'even'), ...(cells.isOwn ? [] : proposeLevel(pad, bands.length))]
}

function spreadBands(bands: readonly Band[], how: 'bands' | 'turns' | 'even'): Band[] {
  const turns = bands.flatMap((band) => band.turns)
  if (how === 'turns') return [createBand(makeId, 1, turns.slice(0, MOST_TURNS))]
  const edges = evenEdges(how === 'bands' ? Math.min(MOST_BANDS, turns.length) : bands.length)
  if (how === 'bands') return turns.slice(0, MOST_BANDS).map((turn, i) => createBand(makeId, edges[i], [turn]))
  return bands.map((band, i) => ({ ...band, fromVelocity: edges[i] }))
}

const MOST_BANDS = 127

/** What laying turns out anew would leave out, in words; nothing where all find a place. */
export function leftOutBySpread(bands: readonly Band[], how: 'bands' | 'turns' | 'even'): string | undefined {
  const turns = bands.reduce((sum, band) => sum + band.turns.length, 0)
  if (how === 'turns') return leftOut(turns, MOST_TURNS, `A band holds ${MOST_TURNS} turns`)
  return how === 'bands' ? leftOut(turns, MOST_BANDS, `A pad holds ${MOST_BANDS} bands`) : undefined
}

/** What joining two bands would leave out, in words. */
export function leftOutByMerge(below: Band, band: Band): string | undefined {
  return leftOut(below.turns.length + band.turns.length, MOST_TURNS, `A band holds ${MOST_TURNS} turns`)
}

function leftOut(count: number, most: number, rule: string): string | undefined {
  return count > most ? `${rule}: the last ${count - most} of ${count} would be left out.` : undefined
}

/** A pad like this one, with ids of its own, right behind it. */
export function duplicateEdits(kit: Kit, pad: Pad): { edits: KitEdit[]; copy: Pad } {
  const { rays, bands, rayIds } = copiedFilling(makeId, pad)
  const { responses } = pad.own
  const note = freeNote(kit)
  const copy: Pad = {
    ...pad,
    id: makeId<PadId>('pad'),
    notes: note === undefined ? [] : [note],
    own: { ...pad.own, name: `${pad.own.name ?? 'Pad'} copy`, ...(responses ? { responses: ontoRays(responses, rayIds) } : {}) },
    rays,
    bands,
  }
  return { copy, edits: [{ type: 'addPad', pad: copy, index: kit.pads.indexOf(pad) + 1 }, ...copyTies(kit, pad.id, copy.id)] }
}

/** What silences a pad silences its copy, and the other way round. */
function copyTies(kit: Kit, padId: PadId, copyId: PadId): KitEdit[] {
  return kit.ties.flatMap((tie): KitEdit[] => {
    if (tie.kind === 'chokeGroup' && tie.pads.includes(padId)) return [{ type: 'putTie', tie: { ...tie, pads: [...tie.pads, copyId] } }]
    if (tie.kind !== 'choke') return []
    const edits: KitEdit[] = []
    if (tie.to.includes(padId)) edits.push({ type: 'putTie', tie: { ...tie, to: [...tie.to, copyId] } })
    if (tie.from === padId) edits.push({ type: 'putTie', tie: { ...tie, id: makeId<TieId>('tie'), from: copyId } })
    return edits
  })
}
