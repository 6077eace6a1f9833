import type { RayId } from '../kit/ids'
import type { Clip, Kit, Pad, Ray } from '../kit/kit'
import { bandsOfRay, clipOfCell, notesOfPads, padSettings, filledPad, rayOfTurn, raySound } from '../kit/resolve'
import type { DrawnCell } from './draw'
import { fileName, uniqueNames } from './names'

export interface NamedPad {
  readonly pad: Pad
  /** Unlike that of any other pad, and fit to be a folder. */
  readonly name: string
  /** What the files of each ray end with: unlike each other, and nothing where there is only one. */
  readonly rayNames: ReadonlyMap<RayId, string>
}

/** The pads of a kit by the names of their folders, with the parts of recordings that lie on them. */
export function namedPads(kit: Kit): NamedPad[] {
  const unique = uniqueNames()
  return kit.pads.map((pad) => ({
    pad: filledPad(kit, pad),
    name: unique(fileName(padSettings(kit, pad).name || 'pad')),
    rayNames: rayNames(pad),
  }))
}

function rayNames({ rays }: Pad): Map<RayId, string> {
  const unique = uniqueNames()
  return new Map(rays.map((ray) => [ray.id, rays.length > 1 ? ' ' + unique(fileName(ray.name)) : '']))
}

export interface ShippedCell extends DrawnCell {
  /** Under the pad's folder, without an ending. */
  readonly label: string
}

/** Every cell of a pad that sounds, ray by ray: what is borrowed too, nothing that is muted. */
export function soundingCells(kit: Kit, named: NamedPad): ShippedCell[] {
  const { pad } = named
  const settings = padSettings(kit, pad)
  const note = settings.rootNote ?? notesOfPads(kit).get(pad.id)?.[0] ?? 60
  const rays = pad.rays.filter((ray) => ray.source.kind === 'clips' && !raySound(kit, settings, ray).isMuted)
  return rays.flatMap((ray) => {
    const bands = bandsOfRay(pad, ray)
    return bands.flatMap(({ turns, values }, bandIndex) =>
      turns.flatMap((turn, turnIndex): ShippedCell[] => {
        const clip = clipOfCell(bands, bandIndex, turnIndex, ray)
        const velocity = (bands[bandIndex + 1]?.fromVelocity ?? 128) - 1
        const label = cellLabel(named, ray, bandIndex, turnIndex)
        return clip ? [{ kit, pad, ray: rayOfTurn(ray, turn), clip, bandGainDb: values.gainDb ?? 0, velocity, note, label }] : []
      }),
    )
  })
}

export function cellLabel({ name, rayNames }: NamedPad, ray: Ray, bandIndex: number, turnIndex: number): string {
  return `${name} b${bandIndex + 1} t${turnIndex + 1}${rayNames.get(ray.id) ?? ''}`
}

/** What a file is called that a clip plays, for a sentence. */
export function clipName(kit: Kit, clip: Clip): string {
  return kit.audio[clip.audio]?.name ?? clip.audio.slice(0, 12)
}
