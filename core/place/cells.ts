import type { BandId, RayId } from '../kit/ids'
import type { Band, Clip, Pad, Ray, Turn } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'

/** The cells that a ray of a pad shows: those that rays share, or its own. */
export interface Cells {
  readonly ray: Ray
  /** Whether the ray has bands and turns of its own, which go round by themselves. */
  readonly isOwn: boolean
  readonly bands: readonly Band[]
}

/** The cells of a ray; of the first ray with clips where none is named or it is gone. Undefined where no ray has clips. */
export function cellsOf(pad: Pad, rayId?: RayId): Cells | undefined {
  const withClips = pad.rays.filter((ray) => ray.source.kind === 'clips')
  const ray = withClips.find(({ id }) => id === rayId) ?? withClips[0]
  if (ray?.source.kind !== 'clips') return undefined
  return { ray, isOwn: ray.source.bands !== undefined, bands: ray.source.bands ?? pad.bands }
}

/** Fills the cells anew, wherever they are kept. `spread` is the rule of a pad's shared bands and is left out for own ones. */
export function setCells(pad: Pad, { ray, isOwn }: Cells, bands: readonly Band[], spread?: Pad['spread']): KitEdit {
  if (!isOwn) return { type: 'setPadFilling', padId: pad.id, bands: [...bands], ...(spread ? { spread } : {}) }
  const pick = ray.source.kind === 'clips' && ray.source.pick
  return {
    type: 'setRay',
    padId: pad.id,
    rayId: ray.id,
    fields: { source: { kind: 'clips', bands: [...bands], ...(pick ? { pick } : {}) } },
  }
}

/** Changes single fields of one band. */
export function setCellBand(pad: Pad, cells: Cells, bandId: BandId, fields: Partial<Omit<Band, 'id' | 'turns'>>): KitEdit {
  if (!cells.isOwn) return { type: 'setBand', padId: pad.id, bandId, fields }
  return setCells(
    pad,
    cells,
    cells.bands.map((band) => (band.id === bandId ? { ...band, ...fields } : band)),
  )
}

/**
 * Exchanges the clips of one ray cell by cell, soft bands first: the turns of the other rays, and every setting, stay.
 * Cells that no clip is left for keep theirs.
 */
export function exchangeClips(bands: readonly Band[], rayId: RayId, clips: readonly Clip[]): Band[] {
  let next = 0
  const exchanged = (turn: Turn) => (next < clips.length ? { ...turn, clips: { ...turn.clips, [rayId]: clips[next++] } } : turn)
  return bands.map((band) => ({ ...band, turns: band.turns.map(exchanged) }))
}

/**
 * New bands with what was set on those they take the place of, where there are as many: level, cross-fade and, unless
 * the new ones bring theirs, the velocities they answer; weights and shapes of turns where those are as many.
 */
export function keepSettings(before: readonly Band[], after: readonly Band[], edges: 'kept' | 'brought'): Band[] {
  if (before.length !== after.length) return [...after]
  return after.map((band, i) => {
    const { id, fromVelocity, blendVelocities, blendLaw, values, turns } = before[i]
    const kept = { ...band, id, blendVelocities, blendLaw, values, fromVelocity: edges === 'kept' ? fromVelocity : band.fromVelocity }
    if (turns.length !== band.turns.length) return kept
    return { ...kept, turns: band.turns.map((turn, place) => ({ ...turns[place], clips: turn.clips })) }
  })
}
