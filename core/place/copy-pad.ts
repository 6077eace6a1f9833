import type { Band, BandId, MakeId, Pad, Ray, RayId, TurnId } from '../kit'

export interface CopiedFilling {
  readonly rays: Ray[]
  readonly bands: Band[]
  /** The ray of the copy that stands for each ray, by its id. */
  readonly rayIds: ReadonlyMap<string, RayId>
}

/** What fills a pad, with ids of its own: its rays, its bands and turns, and clips on the rays that stand for theirs. */
export function copiedFilling(makeId: MakeId, pad: Pick<Pad, 'rays' | 'bands'>): CopiedFilling {
  const rayIds = new Map(pad.rays.map((ray) => [ray.id as string, makeId<RayId>('ray')]))
  const copied = (bands: readonly Band[]): Band[] =>
    bands.map((band) => ({
      ...band,
      id: makeId<BandId>('band'),
      turns: band.turns.map((turn) => ({
        ...turn,
        id: makeId<TurnId>('turn'),
        clips: Object.fromEntries(Object.entries(turn.clips).map(([rayId, clip]) => [rayIds.get(rayId) ?? rayId, clip])),
      })),
    }))
  const rays = pad.rays.map((ray): Ray => ({
    ...ray,
    id: rayIds.get(ray.id)!,
    source: ray.source.kind === 'clips' && ray.source.bands ? { ...ray.source, bands: copied(ray.source.bands) } : ray.source,
  }))
  return { rays, bands: copied(pad.bands), rayIds }
}

type Responses = NonNullable<Pad['own']['responses']>

/** Responses of a pad as its copy has them: what moved a ray moves the one that stands for it. */
export function ontoRays(responses: Responses, rayIds: ReadonlyMap<string, RayId>): Responses {
  const moved = (address: Responses[number]['to'][number]) =>
    address.ray ? { ...address, ray: rayIds.get(address.ray) ?? address.ray } : address
  return responses.map((response) => ({ ...response, to: response.to.map(moved) }))
}
