import { clipOfCell } from '@heliaster/core/kit'
import type { Clip, Pad, RayId, TurnId } from '@heliaster/core/kit'
import { useState } from 'react'

import { useSession } from '../../../kit-view/session'
import type { ShapeTarget } from './target'

/** A clip where it lies, and how that is called. */
export interface Place {
  readonly clip: Clip
  readonly turnId: TurnId
  readonly rayId: RayId
  readonly words: string
}

interface Heard {
  readonly band: number
  readonly turn: number
}

/** The clip that is meant: of the turn that is shaped, that is held, or that sounded last; and of the ray that is shaped. */
function placeOf(pad: Pad, { whom }: ShapeTarget, held: TurnId | undefined, heard: Heard | undefined): Place | undefined {
  const cells = pad.bands.flatMap(({ turns }, band) => turns.map(({ id }, turn) => ({ id, band, turn })))
  const meant = whom.kind === 'turn' ? whom.turnId : held
  const isMeant = ({ id, band, turn }: (typeof cells)[number]) =>
    cells.some((one) => one.id === meant) ? id === meant : band === heard?.band && turn === heard.turn
  const cell = cells.find(isMeant) ?? cells[0]
  if (!cell) return undefined
  for (const ray of pad.rays) {
    if ((whom.kind === 'ray' && ray.id !== whom.rayId) || (ray.source.kind === 'clips' && ray.source.bands)) continue
    const clip = clipOfCell(pad.bands, cell.band, cell.turn, ray)
    if (clip) return { clip, turnId: cell.id, rayId: ray.id, words: `band ${cell.band + 1}, turn ${cell.turn + 1}` }
  }
  return undefined
}

/**
 * The clip that is meant, until it is changed: that one is held then, since each change is heard, and the next strike may take
 * another turn. Until then one `wanted` goes before the one heard last, where that is not wanted itself.
 */
export function usePlace(pad: Pad, target: ShapeTarget, wanted?: (clip: Clip) => boolean) {
  const heard = useSession((state) => state.lit[pad.id])
  const [held, hold] = useState<TurnId>()
  const isHeld = held !== undefined && target.whom.kind !== 'turn'
  const place = placeOf(pad, target, held, heard)
  const other = wanted && !isHeld && place && !wanted(place.clip) ? turnOf(pad, wanted) : undefined
  return { place: other ? placeOf(pad, target, other, heard) : place, hold, isHeld }
}

/** The first turn of a pad with a clip of some kind. */
function turnOf(pad: Pad, wanted: (clip: Clip) => boolean): TurnId | undefined {
  const turns = pad.bands.flatMap((band) => band.turns)
  return turns.find(({ clips }) => Object.values(clips).some((clip) => clip !== 'intendedSilence' && wanted(clip)))?.id
}
