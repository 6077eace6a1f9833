import type { Band, BandId, Bus, BusId, Kit, Pad, PadId, Ray, RayId, TurnId } from '@heliaster/core/kit'
import { createBus, padSettings } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

/** What sounds alone now: pads, rays of pads, buses with all that comes to them, and of a pad one band or one turn. It is of this moment, and no part of a kit. */
export interface Soloed {
  readonly pads: readonly PadId[]
  readonly rays: readonly RayId[]
  readonly buses: readonly BusId[]
  readonly bands: readonly BandId[]
  readonly turns: readonly TurnId[]
}

export const ALL_SOUND: Soloed = { pads: [], rays: [], buses: [], bands: [], turns: [] }

export const soloed = createStore<Soloed>(() => ALL_SOUND)

export function toggleSolo(kind: 'pads', id: PadId): void
export function toggleSolo(kind: 'rays', id: RayId): void
export function toggleSolo(kind: 'buses', id: BusId): void
export function toggleSolo(kind: 'pads' | 'rays' | 'buses', id: PadId | RayId | BusId): void {
  const now = soloed.getState()[kind] as readonly string[]
  soloed.setState({ [kind]: now.includes(id) ? now.filter((one) => one !== id) : [...now, id] })
}

const listsOf = (pad: Pad): (readonly Band[])[] => [
  pad.bands,
  ...pad.rays.flatMap(({ source }) => (source.kind === 'clips' && source.bands ? [source.bands] : [])),
]

/** Keeps one band or one turn of a pad alone while it is played, at any velocity; the same once more, and all sound again. */
export function toggleAlone(pad: Pad, kind: 'bands' | 'turns', id: BandId | TurnId): void {
  const now = soloed.getState()
  const isAlone = (now[kind] as readonly string[]).includes(id)
  const bands = listsOf(pad).flat()
  const own = new Set<string>(bands.flatMap((band) => [band.id as string, ...band.turns.map((turn) => turn.id as string)]))
  const others = { bands: now.bands.filter((one) => !own.has(one)), turns: now.turns.filter((one) => !own.has(one)) }
  soloed.setState({ ...others, ...(isAlone ? {} : { [kind]: [...others[kind], id] }) })
}

interface AloneCell {
  /** Counted from 0. */
  readonly band: number
  readonly turn?: number
}

/** The band, or the turn of one, that sounds alone among these; nothing where all do. */
function aloneIn(bands: readonly Band[], { bands: bandIds, turns: turnIds }: Soloed): AloneCell | undefined {
  for (const [band, { id, turns }] of bands.entries()) {
    const turn = turns.findIndex((one) => turnIds.includes(one.id))
    if (turn >= 0) return { band, turn }
    if (bandIds.includes(id)) return { band }
  }
  return undefined
}

/** Which cell of a pad sounded, where the engine knew only what sounds alone of it. */
export function heardCell(pad: Pad | undefined, heard: { readonly band: number; readonly turn: number }, now: Soloed): { band: number; turn: number } {
  const alone = pad && heard.band >= 0 ? aloneIn(pad.bands, now) : undefined
  return alone ? { band: alone.band, turn: alone.turn ?? heard.turn } : { band: heard.band, turn: heard.turn }
} // prettier-ignore

function onlyAlone(bands: readonly Band[], now: Soloed): Band[] {
  const alone = aloneIn(bands, now)
  if (!alone) return [...bands]
  const band = bands[alone.band]!
  const turns = alone.turn === undefined ? band.turns : [band.turns[alone.turn]!]
  return [{ ...band, fromVelocity: 1, blendVelocities: 0, turns }]
}

/** All that is not soloed is muted: pads among pads, rays among the rays of their pad, bands and turns among those of theirs. */
export function withSolo(kit: Kit, now: Soloed = soloed.getState()): Kit {
  if (Object.values(now).every((ids: readonly string[]) => ids.length === 0)) return kit
  return onlyThroughBuses({ ...kit, pads: kit.pads.map((pad) => soloedPad(pad, now)) }, now)
}

const soloedPads = new WeakMap<Pad, { readonly key: string; readonly pad: Pad }>()

/** The same pad gives the same object for the same solos, so that the engine compiles it once. */
function soloedPad(pad: Pad, now: Soloed): Pad {
  const hasSolo = pad.rays.some((ray) => now.rays.includes(ray.id))
  const isOut = now.pads.length > 0 && !now.pads.includes(pad.id)
  const lists = listsOf(pad)
  const alone = lists.map((bands) => aloneIn(bands, now))
  if (!hasSolo && !isOut && alone.every((one) => one === undefined)) return pad
  const key = JSON.stringify([isOut, pad.rays.map((ray) => now.rays.includes(ray.id)), alone])
  const before = soloedPads.get(pad)
  if (before?.key === key) return before.pad
  const made: Pad = {
    ...pad,
    own: isOut ? { ...pad.own, mute: true } : pad.own,
    bands: onlyAlone(pad.bands, now),
    rays: pad.rays.map((ray) => {
      const { source } = ray
      const own = source.kind === 'clips' && source.bands ? { source: { ...source, bands: onlyAlone(source.bands, now) } } : {}
      return { ...ray, ...own, ...(hasSolo && !now.rays.includes(ray.id) ? { mute: true } : {}) }
    }),
  }
  soloedPads.set(pad, { key, pad: made })
  return made
}

/** Where what is not to be heard goes: a bus that is silent, of no kit. */
const NOWHERE = 'solo-nowhere' as BusId

/**
 * Only what passes the buses that sound alone: of a ray that goes elsewhere what it sends there is heard and nothing else,
 * and so on through buses that lead there.
 */
function onlyThroughBuses(kit: Kit, { buses: alone }: Soloed): Kit {
  const there = alone.filter((id) => kit.buses.some((bus) => bus.id === id))
  if (there.length === 0) return kit
  const reaches = (id: BusId | undefined): boolean => {
    const bus = kit.buses.find((one) => one.id === id)
    return bus !== undefined && (there.includes(bus.id) || reaches(bus.out) || bus.sends.some((send) => reaches(send.busId)))
  }
  const leads = (id: BusId | undefined): boolean => {
    const bus = kit.buses.find((one) => one.id === id)
    return bus !== undefined && (there.includes(bus.id) || leads(bus.out))
  }
  const goesTo = (one: Bus, bus: Bus) => one.out === bus.id || one.sends.some(({ busId }) => busId === bus.id)
  const comesFrom = (bus: Bus): boolean => there.includes(bus.id) || kit.buses.some((one) => goesTo(one, bus) && comesFrom(one))
  const ofRay = (pad: Pad, ray: Ray): Way => {
    const bus = ray.bus ?? padSettings(kit, pad).bus
    return { bus: bus !== undefined && reaches(bus) ? bus : NOWHERE, sends: ray.sends.filter(({ busId }) => reaches(busId)) }
  }
  const ofBus = (bus: Bus): Bus => {
    if (comesFrom(bus)) return bus
    const kept = { ...bus, sends: bus.sends.filter(({ busId }) => reaches(busId)) }
    return leads(bus.id) ? kept : { ...kept, out: NOWHERE }
  }
  const nowhere = { ...createBus(NOWHERE, ''), mute: true }
  return {
    ...kit,
    pads: kit.pads.map((pad) =>
      sentBy(
        pad,
        pad.rays.map((ray) => ofRay(pad, ray)),
      ),
    ),
    buses: [...kit.buses.map(ofBus), nowhere],
  }
}

type Way = Required<Pick<Ray, 'bus' | 'sends'>>
const sentPads = new WeakMap<Pad, { readonly key: string; readonly pad: Pad }>()

/** A pad with the ways of its rays; the same ones give the same object, so that the engine compiles it once. */
function sentBy(pad: Pad, ways: readonly Way[]): Pad {
  const key = JSON.stringify(ways)
  const before = sentPads.get(pad)
  if (before?.key === key) return before.pad
  const made: Pad = { ...pad, rays: pad.rays.map((ray, i) => ({ ...ray, ...ways[i] })) }
  sentPads.set(pad, { key, pad: made })
  return made
}

/** Whether a pad is silent because buses sound alone that nothing of it comes to. */
export function isShutOut(kit: Kit, padId: PadId, now: Soloed): boolean {
  if (now.buses.length === 0) return false
  const pad = onlyThroughBuses(kit, now).pads.find(({ id }) => id === padId)
  return pad?.rays.every(({ bus, sends }) => bus === NOWHERE && sends.length === 0) ?? false
}
