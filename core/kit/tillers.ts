import type { MakeId, PadId } from './ids'
import type { Kit } from './kit'
import { mixPlace } from './mix-places'
import { movedParameters, parameterRow } from './parameters'
import type { Parameter } from './parameters'
import { padSettings, shapeOf } from './resolve'
import type { Address, Tiller } from './shape'
import type { StartTiller } from './start'

export const MOST_TILLERS = 16
export const MOST_TILLER_TARGETS = 64

/** The kit's tillers with one more, that moves nothing yet. */
export function withNewTiller(makeId: MakeId, { tillers }: Kit): Tiller[] {
  if (tillers.length >= MOST_TILLERS) return tillers
  const names = new Set(tillers.map(({ name }) => name))
  let count = tillers.length + 1
  while (names.has(`Tiller ${count}`)) count++
  return [...tillers, { id: makeId('tiller'), name: `Tiller ${count}`, value: 0, to: [] }]
}

export function withTiller({ tillers }: Kit, id: string, change: Partial<Omit<Tiller, 'id'>>): Tiller[] {
  return tillers.map((tiller) => (tiller.id === id ? { ...tiller, ...change } : tiller))
}

/** A tiller that also leads a parameter, from where it is set now: at the tiller's beginning nothing is changed. */
export function withTarget(tiller: Tiller, makeId: MakeId, address: Address, now: number, to: number): Tiller {
  const isThere = tiller.to.some((one) => one.address.id === address.id && one.address.param === address.param)
  if (isThere || tiller.to.length >= MOST_TILLER_TARGETS) return tiller
  return { ...tiller, to: [...tiller.to, { id: makeId('target'), address, from: now, to }] }
}

/** What a tiller can lead is set to now; nothing for what is gone, or what the engine lets no tiller lead. */
export function valueNow(kit: Kit, address: Address): number | undefined {
  const { scope, id, param } = address
  if (scope === 'kit' || scope === 'bus' || scope === 'insert') return mixPlace(kit, address)?.now
  const name = movedParameters.find((one) => one === param)
  const pad = kit.pads.find((one) => (scope === 'pad' ? one.id === id : scope === 'ray' && one.rays.some((ray) => ray.id === id)))
  if (!name || !pad) return undefined
  const settings = padSettings(kit, pad)
  return scope === 'pad'
    ? settings.values[name]
    : shapeOf(
        settings,
        pad.rays.find((ray) => ray.id === id)!,
      ).values[name]
}

/** What the kit's tillers move of one pad: what a start that is made of it brings along. */
export function startTillersOf({ tillers }: Kit, padId: PadId): StartTiller[] {
  return tillers.flatMap(({ name, to }) => {
    const mine = to.filter(({ address }) => address.scope === 'pad' && address.id === padId)
    const kept = mine.map(({ address: { param }, from, to: end, curve }) => ({ param, from, to: end, ...(curve ? { curve } : {}) }))
    return kept.length > 0 ? [{ name, to: kept }] : []
  })
}

/**
 * The kit's tillers, that also move new pads as a start says: a tiller of the same name takes them, else there is a new one
 * while there is room.
 */
export function withStartTillers(makeId: MakeId, kit: Kit, brought: readonly StartTiller[], padIds: readonly PadId[]): Tiller[] {
  let { tillers } = kit
  for (const { name, to } of brought) {
    if (!tillers.some((tiller) => tiller.name === name)) {
      if (tillers.length >= MOST_TILLERS) continue
      tillers = [...tillers, { id: makeId('tiller'), name, value: 0, to: [] }]
    }
    const more = padIds.flatMap((id) =>
      to.map(({ param, ...rest }) => ({ id: makeId('target'), address: { scope: 'pad' as const, id, param }, ...rest })),
    )
    tillers = tillers.map((tiller) =>
      tiller.name === name ? { ...tiller, to: [...tiller.to, ...more].slice(0, MOST_TILLER_TARGETS) } : tiller,
    )
  }
  return tillers
}

/** How far a new target leads a parameter: by so much from where it is, or to a value that says something to the ear. */
const LEADS_BY: Partial<Record<Parameter, number>> = {
  gainDb: -24, tuneCents: 1200, startSeconds: 0.05, endSeconds: 0.05, driveDb: 24, driveAfterDb: 24, attackDb: 12, tailDb: 12,
} // prettier-ignore
const LEADS_TO: Partial<Record<Parameter, number>> = {
  pan: 1, fadeInSeconds: 0.05, fadeOutSeconds: 0.1, filter1CutoffHz: 400, filter2CutoffHz: 400, decayScale: 0.25, crush: 1,
  width: 0, lowCutHz: 400, pitchEnvelope: 2, filter1EnvelopeCents: 3600, filter2EnvelopeCents: 3600,
} // prettier-ignore

/** Where a new target leads a parameter from where it is now: somewhere else, within its bounds. */
export function leadsTo(param: Parameter, now: number): number {
  const row = parameterRow(param)
  const by = LEADS_BY[param]
  return elsewhere(row, now, by === undefined ? (LEADS_TO[param] ?? row.max) : now + by)
}

/** The same for any address that a tiller can lead. */
export function addressLeadsTo(kit: Kit, address: Address, now: number): number {
  const place = mixPlace(kit, address)
  if (address.scope !== 'insert' || !place) return leadsTo(address.param as Parameter, now)
  const { min, max, movedBy } = place
  // A share goes all the way; a level, a frequency or a time as far as an ear hears at once.
  if (movedBy === 'cents') return elsewhere(place, now, now > 1000 ? now / 8 : now * 8)
  if (movedBy === 'octaves') return elsewhere(place, now, now * 4)
  return elsewhere(place, now, address.param.endsWith('Db') ? now + 12 : now < (min + max) / 2 ? max : min)
}

function elsewhere({ min, max, usual }: { readonly min: number; readonly max: number; readonly usual: number }, now: number, wanted: number): number {
  const places = [Math.min(max, Math.max(min, wanted)), usual, max, min]
  return places.find((place) => place !== now)!
} // prettier-ignore
