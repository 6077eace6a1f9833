import type { Band, Kit, Pad, Ray } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { keepSettings } from './cells'

/** What two pads can exchange: their places among the pads, the notes that strike them, or what they are filled with. */
export type PadSwap = 'places' | 'notes' | 'clips'

/** Edits of one step; every setting of both pads stays, also where their clips change places. */
export function swapPads(kit: Kit, one: Pad, other: Pad, what: PadSwap): KitEdit[] {
  if (what === 'notes')
    return [
      { type: 'setPadNotes', padId: one.id, notes: other.notes },
      { type: 'setPadNotes', padId: other.id, notes: one.notes },
    ]
  if (what === 'clips') return [filledLike(one, other), filledLike(other, one)]
  const [first, second] = kit.pads.indexOf(one) < kit.pads.indexOf(other) ? [one, other] : [other, one]
  const [from, to] = [kit.pads.indexOf(first), kit.pads.indexOf(second)]
  return [
    { type: 'movePad', padId: first.id, index: to },
    { type: 'movePad', padId: second.id, index: from },
  ]
}

/** A pad with the clips of another: its rays keep their settings and get the other's sounds in their order. */
function filledLike(pad: Pad, model: Pad): KitEdit {
  const rays = model.rays.map((ray, i): Ray => (pad.rays[i] ? { ...pad.rays[i], source: ray.source, microphone: ray.microphone } : ray))
  const idOf = new Map<string, string>(model.rays.map((ray, i) => [ray.id, rays[i].id]))
  const renamed = (bands: readonly Band[]): Band[] =>
    bands.map((band) => ({
      ...band,
      turns: band.turns.map((turn) => ({
        ...turn,
        clips: Object.fromEntries(Object.entries(turn.clips).map(([rayId, clip]) => [idOf.get(rayId) ?? rayId, clip])),
      })),
    }))
  const withOwn = rays.map((ray): Ray =>
    ray.source.kind === 'clips' && ray.source.bands ? { ...ray, source: { ...ray.source, bands: renamed(ray.source.bands) } } : ray,
  )
  const bands = keepSettings(pad.bands, renamed(model.bands), 'kept')
  const spread = pad.bands.length === bands.length ? pad.spread : model.spread
  return { type: 'setPadFilling', padId: pad.id, rays: withOwn, bands, spread }
}
