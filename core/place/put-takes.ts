import type { BandId, MakeId, RayId, TurnId } from '../kit/ids'
import type { Band, Clip, Pad, Ray } from '../kit/kit'
import { createBand, createTurn } from '../kit/make'
import { keepSettings } from './cells'
import { asTurns, evenEdges, MOST_TURNS } from './place'

/**
 * Where takes go on a pad: all of it, one band, the cell of one turn, or a ray with turns of its own. Bands and turns are
 * found among those of rays too; where several rays share them, takes are clips of `rayId`, else of the first ray.
 */
export type TakeTarget =
  | { readonly kind: 'pad' }
  | { readonly kind: 'band'; readonly bandId: BandId; readonly rayId?: RayId }
  | { readonly kind: 'turn'; readonly turnId: TurnId; readonly rayId?: RayId }
  | { readonly kind: 'ray'; readonly rayId: RayId }

export type PutMode = 'add' | 'replace'
export type Filling = Partial<Pick<Pad, 'rays' | 'bands'>>

/**
 * What a pad is filled with once takes are put in their place; its settings are not touched. `groups` are takes from
 * soft to hard, one group for a plain target. A turn takes the first take only.
 */
export function putTakes(makeId: MakeId, pad: Pad, target: TakeTarget, groups: readonly (readonly Clip[])[], mode: PutMode): Filling {
  const clips = groups.flat()
  const rayId = pad.rays[0].id
  const turns = (of: readonly Clip[], ray = rayId) => of.slice(0, MOST_TURNS).map((clip) => createTurn(makeId, { [ray]: clip }))
  switch (target.kind) {
    case 'pad': {
      const filled = groups.filter((group) => group.length > 0)
      if (filled.length > 1) {
        const edges = evenEdges(filled.length)
        const bands = filled.map((group, i) => createBand(makeId, edges[i], turns(group)))
        return { bands: keepSettings(pad.bands, bands, 'kept') }
      }
      if (mode === 'add' && pad.bands.length === 1) return { bands: [grown(pad.bands[0], turns(clips))] }
      return { bands: keepSettings(pad.bands, asTurns(makeId, rayId, clips), 'kept') }
    }
    case 'band':
      return inBands(pad, target.rayId, (band, ray) => {
        if (band.id !== target.bandId) return band
        return mode === 'add' ? grown(band, turns(clips, ray)) : { ...band, turns: turns(clips, ray) }
      })
    case 'turn':
      return inBands(pad, target.rayId, (band, ray) => ({
        ...band,
        turns: band.turns.map((turn) => (turn.id === target.turnId ? { ...turn, clips: { ...turn.clips, [ray]: clips[0] } } : turn)),
      }))
    case 'ray':
      return { rays: pad.rays.map((ray) => (ray.id === target.rayId ? withTakes(makeId, ray, clips, mode) : ray)) }
  }
}

/** Changes bands wherever they are; each is told the ray that its clips are of. */
function inBands(pad: Pad, shared: RayId | undefined, change: (band: Band, rayId: RayId) => Band): Filling {
  const rays = pad.rays.map((ray): Ray => {
    if (ray.source.kind !== 'clips' || !ray.source.bands) return ray
    return { ...ray, source: { ...ray.source, bands: ray.source.bands.map((band) => change(band, ray.id)) } }
  })
  return { rays, bands: pad.bands.map((band) => change(band, shared ?? pad.rays[0].id)) }
}

function grown(band: Band, turns: Band['turns']): Band {
  return { ...band, turns: [...band.turns, ...turns].slice(0, MOST_TURNS) }
}

/** A ray that is no microphone has turns of its own, which go round by themselves. */
function withTakes(makeId: MakeId, ray: Ray, clips: readonly Clip[], mode: PutMode): Ray {
  const own = asTurns(makeId, ray.id, clips)
  const source: Extract<Ray['source'], { kind: 'clips' }> = ray.source.kind === 'clips' ? ray.source : { kind: 'clips' }
  const [first] = (mode === 'add' && source.bands) || []
  return { ...ray, microphone: false, source: { ...source, bands: first ? [grown(first, own[0].turns)] : own } }
}
