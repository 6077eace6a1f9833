import type { BandId, MakeId, RayId, TurnId } from '../kit/ids'
import type { Band, Pad, Ray, Turn } from '../kit/kit'

/** Rays and the bands they share, as they are after a ray has left them or come to them. */
export type Shared = Pick<Pad, 'rays' | 'bands'>

/** A ray leaves the cells it shares with others: its clips become bands and turns of its own, which go round by themselves. */
export function toOwnCells(makeId: MakeId, pad: Pad, rayId: RayId): Shared {
  const own = pad.bands.map((band) => ({
    ...band,
    id: makeId<BandId>('band'),
    turns: band.turns.flatMap((turn): Turn[] => {
      const clip = turn.clips[rayId]
      return clip ? [{ ...turn, id: makeId<TurnId>('turn'), clips: { [rayId]: clip } }] : []
    }),
  }))
  const rays = pad.rays.map((ray): Ray => {
    if (ray.id !== rayId || ray.source.kind !== 'clips') return ray
    return { ...ray, microphone: false, source: { ...ray.source, bands: own } }
  })
  return { rays, bands: eachTurn(pad.bands, (turn) => withoutRay(turn, rayId)) }
}

/**
 * A ray comes to the cells that the others share: the clip of each of its turns to the turn at the same place. Undefined
 * where it has bands or turns that the shared cells have not, for their clips would be lost.
 */
export function toSharedCells(pad: Pad, rayId: RayId): Shared | undefined {
  const ray = pad.rays.find(({ id }) => id === rayId)
  if (ray?.source.kind !== 'clips' || !ray.source.bands) return undefined
  const own = ray.source.bands
  if (own.some((band, b) => band.turns.length > (pad.bands[b]?.turns.length ?? 0))) return undefined
  const bands = pad.bands.map((band, b) => ({
    ...band,
    turns: band.turns.map((turn, t) => {
      const clip = own[b]?.turns[t]?.clips[rayId]
      return clip ? { ...turn, clips: { ...turn.clips, [rayId]: clip } } : turn
    }),
  }))
  return { rays: pad.rays.map((one) => (one.id === rayId ? { ...one, source: { kind: 'clips' } } : one)), bands }
}

/** A pad without one of its rays, its clips and all. */
export function withoutRayAt(pad: Pad, rayId: RayId): Shared {
  return { rays: pad.rays.filter(({ id }) => id !== rayId), bands: eachTurn(pad.bands, (turn) => withoutRay(turn, rayId)) }
}

function eachTurn(bands: readonly Band[], change: (turn: Turn) => Turn): Band[] {
  return bands.map((band) => ({ ...band, turns: band.turns.map(change) }))
}

function withoutRay(turn: Turn, rayId: RayId): Turn {
  const { [rayId]: _gone, ...clips } = turn.clips
  return { ...turn, clips }
}
