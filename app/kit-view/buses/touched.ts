import type { Bus, BusId, Kit, Pad, Ray } from '@heliaster/core/kit'
import { busesOfSlices, padSettings } from '@heliaster/core/kit'

import { padName } from '../use-kit'

/** A ray that goes into a bus, of its pad. */
export interface Feed {
  readonly pad: Pad
  readonly ray: Ray
}

/** Rays that go into a bus by their own way, not by what they send. */
export function feedsOf(kit: Kit, busId: BusId): Feed[] {
  return kit.pads.flatMap((pad) =>
    pad.rays.flatMap((ray): Feed[] => ((ray.bus ?? padSettings(kit, pad).bus) === busId ? [{ pad, ray }] : [])),
  )
}

const feedName = (kit: Kit, { pad, ray }: Feed) => (pad.rays.length > 1 ? `${padName(kit, pad)}, ${ray.name}` : padName(kit, pad))

/** Who comes into a bus, in words: rays that go there, buses that go there, and whoever sends. */
export function comingIn(kit: Kit, bus: Bus): string {
  const rays = feedsOf(kit, bus.id).map((feed) => feedName(kit, feed))
  const buses = kit.buses.filter(({ out }) => out === bus.id).map(({ name }) => name)
  const sent = sentTo(kit, bus.id)
  const parts = [
    ...(rays.length + buses.length > 0 ? [`Here go ${[...rays, ...buses].join(', ')}.`] : []),
    ...(sent.length > 0 ? [`Sent here from ${sent.join(', ')}.`] : []),
  ]
  return parts.join(' ') || (bus.isReturn ? 'Nothing is sent here yet: a pad, a ray or a bus sends from its own settings.' : 'Nothing goes here yet: a pad or ray is sent here from its settings.') // prettier-ignore
}

/** Who sends to a bus, by name, each once; a pad does too that only sends from slices of its clips. */
function sentTo(kit: Kit, busId: BusId): string[] {
  const isTo = (send: { busId: BusId }) => send.busId === busId
  const pads = kit.pads.filter((pad) => pad.rays.some((ray) => ray.sends.some(isTo) || busesOfSlices(pad, ray).includes(busId)))
  return [...pads.map((pad) => padName(kit, pad)), ...kit.buses.filter(({ sends }) => sends.some(isTo)).map(({ name }) => name)]
}

/** The same short enough for a line: what passes a bus, through whatever stands before it. */
export function touchedBy(kit: Kit, bus: Bus): string {
  const names = [...new Set([...feedsOf(kit, bus.id).map((feed) => feedName(kit, feed)), ...kit.buses.filter(({ out }) => out === bus.id).map(({ name }) => name), ...sentTo(kit, bus.id)])] // prettier-ignore
  if (names.length === 0) return 'nothing goes here yet'
  return names.length <= 2 ? names.join(', ') : `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`
}
