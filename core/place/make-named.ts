import type { BusId, MakeId, RayId } from '../kit/ids'
import type { Bus, Clip, Kit, Pad, Ray, Turn } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { createBand, createBus, createPad, createRay, createTurn, freeNote } from '../kit/make'
import { velocityToLevel } from '../kit/responses'
import { keepSettings } from './cells'
import { evenEdges } from './place'
import type { NamePlan, PlannedPad } from './name-plan'
import { proposeLevel } from './propose-level'

/** What the microphone is called that names leave out where they name others. */
export const PLAIN_MICROPHONE = 'Body'

const MOST_BUSES = 16
const MOST_PADS = 128

/** What makes a plan real: where the pads go, and the clip of each file. */
export interface NamedFilling {
  readonly plan: NamePlan
  /** The clip of a file, by its place. */
  clipOf(file: number): Clip
  /** A pad whose clips are replaced while all its settings stay; for a plan of one pad. */
  readonly onto?: Pad
}

/** A bus for microphones of a name, the one that is there or a new one; none where all sixteen are taken. */
function busesFor(makeId: MakeId, kit: Kit, plan: NamePlan): { of: ReadonlyMap<string, BusId>; made: Bus[] } {
  const made: Bus[] = []
  const of = new Map<string, BusId>()
  for (const microphone of new Set(plan.pads.flatMap((pad) => (pad.microphones.length > 1 ? pad.microphones : [])))) {
    const name = microphone || PLAIN_MICROPHONE
    const there = [...kit.buses, ...made].find((bus) => bus.name.toLowerCase() === name.toLowerCase())
    if (!there && kit.buses.length + made.length >= MOST_BUSES) continue
    const bus = there ?? createBus(makeId<BusId>('bus'), name)
    if (!there) made.push(bus)
    of.set(microphone, bus.id)
  }
  return { of, made }
}

/** The pads of a plan, filled, and the buses their microphones need. Pads beyond the 128 of a kit are left out. */
export function padsOfPlan(makeId: MakeId, kit: Kit, { plan, clipOf, onto }: NamedFilling): { pads: Pad[]; buses: Bus[] } {
  const buses = busesFor(makeId, kit, plan)
  let grown = kit
  const pads = plan.pads.slice(0, onto ? 1 : MOST_PADS - kit.pads.length).map((planned) => {
    const pad = filledPad(makeId, onto ?? emptyPad(makeId, grown, planned), planned, buses.of, clipOf)
    grown = { ...grown, pads: [...grown.pads, pad] }
    return pad
  })
  return { pads, buses: buses.made }
}

function emptyPad(makeId: MakeId, kit: Kit, { name, note, bands }: PlannedPad): Pad {
  const isFree = note !== undefined && !kit.pads.some((pad) => pad.notes.includes(note))
  const responses = [velocityToLevel(bands.length)]
  return createPad(makeId, { name, pick: 'shuffle', responses }, isFree ? note : freeNote(kit))
}

function filledPad(makeId: MakeId, pad: Pad, planned: PlannedPad, buses: ReadonlyMap<string, BusId>, clipOf: (file: number) => Clip): Pad {
  const rays = raysOf(makeId, pad, planned.microphones, buses)
  const idOf = new Map<string, RayId>(planned.microphones.map((name, i) => [name, rays[i].id]))
  const bands = planned.bands.map(({ fromVelocity, turns }) =>
    createBand(
      makeId,
      fromVelocity,
      turns.map(({ files }): Turn => {
        const clips = [...files].map(([microphone, file]) => [idOf.get(microphone)!, clipOf(file)] as const)
        return createTurn(makeId, Object.fromEntries(clips))
      }),
    ),
  )
  const even = evenEdges(bands.length)
  const isEven = bands.every((band, i) => band.fromVelocity === even[i])
  return { ...pad, rays, bands: keepSettings(pad.bands, bands, isEven ? 'kept' : 'brought'), spread: isEven ? pad.spread : 'own' }
}

/**
 * One ray for each microphone, in their order, and then those of the pad that have sounds of their own. A ray of the same
 * name keeps its settings, and so does one of another name where there are as many: same line, other object.
 */
function raysOf(makeId: MakeId, pad: Pad, microphones: readonly string[], buses: ReadonlyMap<string, BusId>): Ray[] {
  if (microphones.length === 1 && microphones[0] === '') return pad.rays
  const own = pad.rays.filter((ray) => ray.source.kind === 'body' || ray.source.bands)
  const shared = pad.rays.filter((ray) => !own.includes(ray))
  const named = (name: string) => shared.find((ray) => ray.name.toLowerCase() === (name || PLAIN_MICROPHONE).toLowerCase())
  const others = shared.filter((ray) => !microphones.some((name) => named(name) === ray))
  const rays = microphones.map((name) => {
    const there = named(name) ?? (shared.length === microphones.length && pad.bands.length > 0 ? others.shift() : undefined)
    if (there) return { ...there, microphone: microphones.length > 1 || there.microphone }
    const bus = buses.get(name)
    const word = name === '' ? PLAIN_MICROPHONE : name[0].toUpperCase() + name.slice(1)
    return { ...createRay(makeId, word), microphone: microphones.length > 1, ...(bus ? { bus } : {}) }
  })
  return [...rays, ...own]
}

/** All of it as edits of one step: buses, then pads behind those that are there, or the filling of the pad that was chosen. */
export function editsOfPlan(kit: Kit, { pads, buses }: { readonly pads: readonly Pad[]; readonly buses: readonly Bus[] }): KitEdit[] {
  const there = new Map(kit.pads.map((pad) => [pad.id, pad]))
  let index = kit.pads.length
  return [
    ...buses.map((bus): KitEdit => ({ type: 'putBus', bus })),
    ...pads.flatMap((pad): KitEdit[] => {
      const before = there.get(pad.id)
      if (!before) return [{ type: 'addPad', pad, index: index++ }]
      const filling: KitEdit = { type: 'setPadFilling', padId: pad.id, rays: pad.rays, bands: pad.bands, spread: pad.spread }
      return [filling, ...proposeLevel(before, pad.bands.length)]
    }),
  ]
}
