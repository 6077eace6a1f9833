import type { Band, Clip, Pad, RayId, TurnId } from '@heliaster/core/kit'
import type { Cells } from '@heliaster/core/place'

/** Which cells a setting is for: one, or all that a rule picks with it. */
export type CellScope = 'marked' | 'cell' | 'band' | 'turn' | 'ray' | 'strike' | 'pad'

export interface PlacedClip {
  readonly clip: Clip
  readonly turnId: TurnId
  readonly rayId: RayId
}

/** The rules that pick more than one cell of this pad; `band` and `turn` are places counted from 0, `marked` how many are marked by hand. */
export function scopesOf(
  pad: Pad,
  { ray, bands, isOwn }: Cells,
  band: number,
  turn: number,
  marked = 0,
): { value: CellScope; text: string }[] {
  const hasRays = !isOwn && pad.rays.filter((one) => one.source.kind === 'clips' && !one.source.bands).length > 1
  return [
    ...(marked > 1 ? [{ value: 'marked' as const, text: `These ${marked} cells` }] : []),
    { value: 'cell', text: 'This cell' },
    ...(bands[band].turns.length > 1 ? [{ value: 'band' as const, text: `All of band ${band + 1}` }] : []),
    ...(bands.length > 1 && bands.some((one, i) => i !== band && one.turns.length > turn)
      ? [{ value: 'turn' as const, text: `All turns ${turn + 1}` }]
      : []),
    ...(bands.flatMap((one) => one.turns).length > 1
      ? [{ value: 'ray' as const, text: hasRays ? `All of ${ray.name}` : 'All cells' }]
      : []),
    ...(hasRays
      ? [
          { value: 'strike' as const, text: 'All rays here' },
          { value: 'pad' as const, text: 'All of the pad' },
        ]
      : []),
  ]
}

/** The clips that a setting is for; those of one ray, except where all rays are meant. */
export function cellsInScope({ ray, bands }: Cells, turnId: TurnId, scope: CellScope, marked: readonly TurnId[] = []): PlacedClip[] {
  const ofRay = (rayId: string) => scope === 'strike' || scope === 'pad' || rayId === ray.id
  const own = bands.find((band) => band.turns.some(({ id }) => id === turnId))
  const place = own?.turns.findIndex(({ id }) => id === turnId)
  const inScope = (band: Band, id: TurnId, turn: number) => {
    if (scope === 'marked') return marked.includes(id)
    if (scope === 'cell' || scope === 'strike') return id === turnId
    if (scope === 'band') return band === own
    return scope !== 'turn' || turn === place
  }
  return bands.flatMap((band) =>
    band.turns.flatMap(({ id, clips }, turn) =>
      Object.entries(clips).flatMap(([rayId, clip]) =>
        clip !== 'intendedSilence' && ofRay(rayId) && inScope(band, id, turn) ? [{ clip, turnId: id, rayId: rayId as RayId }] : [],
      ),
    ),
  )
}
