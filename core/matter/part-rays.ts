import type { Clip } from '../kit/clip'
import type { MakeId, RayId } from '../kit/ids'
import type { Band, Pad, Ray } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import type { MatterStep } from '../kit/matter-values'
import type { PartingStart } from './parting-starts'

/** Whether a ray's sound can be divided: its clips, and neither part of it already. */
export const canPart = (pad: Pad, rayId: RayId): boolean =>
  clipsOfRay(pad, rayId).length > 0 && !clipsOfRay(pad, rayId).some(({ process = [] }) => process.some(({ kind }) => kind === 'ringing'))

function clipsOfRay(pad: Pad, rayId: RayId): Clip[] {
  const ray = pad.rays.find(({ id }) => id === rayId)
  const own = ray?.source.kind === 'clips' ? ray.source.bands : undefined
  return [...pad.bands, ...(own ?? [])].flatMap(({ turns }) => turns).flatMap(({ clips }) => {
    const clip = clips[rayId]
    return clip && clip !== 'intendedSilence' ? [clip] : []
  })
} // prettier-ignore

/**
 * A ray divided into two, its ringing and its noise: unchanged they add up to what it was. The ringing follows the note at one
 * length; the noise keeps its pitch. `rootNote` is the note at which the pad sounds as recorded, where it is known.
 */
export function partRay(makeId: MakeId, pad: Pad, rayId: RayId, start: PartingStart, rootNote?: number): KitEdit[] {
  const ray = pad.rays.find(({ id }) => id === rayId)
  if (!ray || !canPart(pad, rayId)) return []
  const noiseId = makeId<RayId>('ray')
  const settings = { divideHz: start.divideHz, steadyMs: start.steadyMs }
  const step = (kind: 'ringing' | 'noise'): MatterStep => ({ id: makeId('step'), kind, values: settings, bypass: false })
  const withStep = (clip: Clip, steps: MatterStep[]): Clip => ({ ...clip, process: [...(clip.process ?? []), ...steps] })
  const sameLength = (): MatterStep => ({ id: makeId('step'), kind: 'time', values: { sameLength: 1 }, bypass: false })
  const parted = (bands: readonly Band[]): Band[] =>
    bands.map((band) => ({
      ...band,
      turns: band.turns.map((turn) => {
        const clip = turn.clips[rayId]
        if (!clip) return turn
        const [ringing, noise] =
          clip === 'intendedSilence' ? [clip, clip] : [withStep(clip, [step('ringing'), sameLength()]), withStep(clip, [step('noise')])]
        return { ...turn, clips: { ...turn.clips, [rayId]: ringing, [noiseId]: noise } }
      }),
    }))
  const own = ray.source.kind === 'clips' ? ray.source.bands : undefined
  const source: Ray['source'] = own ? { ...ray.source, kind: 'clips', bands: parted(own) } : ray.source
  const ringing: Ray = { ...ray, source, name: `${ray.name}, ringing`.slice(0, 120), values: { ...ray.values, keyTrack: 1 } }
  const noise: Ray = { ...ray, id: noiseId, source: own ? withoutOthers(source, noiseId) : source, name: `${ray.name}, noise`.slice(0, 120), values: { ...ray.values, keyTrack: 0 } } // prettier-ignore
  const mine: Ray = own ? { ...ringing, source: withoutOthers(source, rayId) } : ringing
  const rays = pad.rays.flatMap((one) => (one.id === rayId ? [mine, noise] : [one]))
  return [
    { type: 'setPadFilling', padId: pad.id, rays, bands: parted(pad.bands) },
    ...(rootNote === undefined ? [] : [{ type: 'setPad' as const, padId: pad.id, own: { rootNote } }]),
  ]
}

/** The bands of a ray of its own, with the clips of that ray alone. */
function withoutOthers(source: Ray['source'], rayId: RayId): Ray['source'] {
  if (source.kind !== 'clips' || !source.bands) return source
  const only = (band: Band): Band => ({
    ...band,
    turns: band.turns.map((turn) => ({ ...turn, clips: turn.clips[rayId] ? { [rayId]: turn.clips[rayId] } : {} })),
  })
  return { ...source, bands: source.bands.map(only) }
}
