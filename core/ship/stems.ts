import type { Audio } from '../audio/audio'
import { writeWav } from '../audio/wav-write'
import { EventType } from '../engine'
import { renderParts } from '../engine/parts'
import type { BusId, RayId } from '../kit/ids'
import type { Bus, Kit, Pad, Ray } from '../kit/kit'
import { createBus } from '../kit/make'
import { insertsOf, padSettings } from '../kit/resolve'
import type { AudioOf } from './draw'
import { fileName, uniqueNames } from './names'
import { readme } from './readme'
import type { Shipment, ShippedFile } from './shipment'
import { MOST_STEM_SECONDS, stemSeconds } from './stem-seconds'
import type { StemOptions } from './stem-seconds'

/** So long sounds ring out after the last lap, s. */
const TAIL_SECONDS = 6

interface Part {
  readonly name: string
  readonly kit: Kit
}

/**
 * A groove or song as stems: WAV files of 32 bits, all of one length and aligned to the frame, before what stands in the
 * master. What is lowered by level in a bus is lowered as the whole mix has it there, so that stems add up to the mix.
 * Undefined where it was ended.
 */
export function writeStems(kit: Kit, options: StemOptions, audioOf: AudioOf): Shipment | undefined {
  const whole = options.withEffects ? kit : withoutEffects(kit)
  const parts = partsOf(whole, options.by)
  const seconds = Math.min(MOST_STEM_SECONDS, stemSeconds(kit, options))
  const frames = Math.round((seconds + TAIL_SECONDS) * options.sampleRateHz)
  const events = [
    { frame: 0, type: EventType.groove, padSlot: 0, velocity: 0 },
    { frame: Math.round(seconds * options.sampleRateHz), type: EventType.stopGroove, padSlot: 0 },
  ]
  const rendered = renderParts({ whole: { ...whole, inserts: [] }, parts: parts.map((part) => ({ ...part.kit, inserts: [] })), sampleRateHz: options.sampleRateHz, frames, choice: options.what, events, audioOf, onDone: options.onDone }) // prettier-ignore
  if (!rendered) return undefined
  const end = lastFrame([rendered.whole, ...rendered.parts])
  const unique = uniqueNames()
  const file = (name: string, sides: readonly Float64Array[]): ShippedFile => ({ path: `${unique(fileName(name))}.wav`, bytes: writeWav(audioFrom(sides, end, options.sampleRateHz), { bits: 32 }) }) // prettier-ignore
  const heard = rendered.parts.flatMap((sides, i) => (isSilent(sides) ? [] : [{ name: parts[i].name, sides }]))
  const files = [file('The mix', rendered.whole), ...heard.map(({ name, sides }) => file(name, sides))]
  const notes = stemNotes(kit, options)
  return { files: [...files, readme(kit, 'stems', notes, files)], notes, isTooLoud: false }
}

function audioFrom(sides: readonly Float64Array[], end: number, sampleRateHz: number): Audio {
  return { sampleRateHz, channels: sides.map((side) => Float32Array.from(side.subarray(0, end))) }
}

/** -120 dB. */
const SILENT = 1e-6

function isSilent(sides: readonly Float64Array[]): boolean {
  return sides.every((side) => side.every((sample) => Math.abs(sample) < SILENT))
}

/** All are as long as the longest of them sounds. */
function lastFrame(all: readonly (readonly Float64Array[])[]): number {
  let end = 1
  for (const sides of all) for (const side of sides) for (let i = side.length - 1; i >= end; i--) if (Math.abs(side[i]) >= SILENT) end = i + 1 // prettier-ignore
  return end
}

function withoutEffects(kit: Kit): Kit {
  return { ...kit, inserts: [], buses: kit.buses.map((bus) => ({ ...bus, inserts: [] })) }
}

/** Kits that each play one part and have all else as it is. */
function partsOf(kit: Kit, by: StemOptions['by']): Part[] {
  if (by === 'bus') return busParts(kit)
  if (by === 'pad')
    return kit.pads.map((pad) => ({ name: padSettings(kit, pad).name || 'Pad', kit: onlyRays(kit, (_, other) => other === pad) }))
  return kit.pads.flatMap((pad) =>
    pad.rays.map((ray) => {
      const name = padSettings(kit, pad).name || 'Pad'
      return { name: pad.rays.length > 1 ? `${name} ${ray.name}` : name, kit: onlyRays(kit, (one, other) => other === pad && one === ray) }
    }),
  )
}

function onlyRays(kit: Kit, isHeard: (ray: Ray, pad: Pad) => boolean): Kit {
  return {
    ...kit,
    pads: kit.pads.map((pad) => ({ ...pad, rays: pad.rays.map((ray) => (isHeard(ray, pad) ? ray : { ...ray, mute: true })) })),
  }
}

/** Where what is not of a part goes. */
const NOWHERE = 'stem-nowhere' as BusId

/** What reaches the master by each bus that goes there, and what goes there by none: all else ends before it. */
function busParts(kit: Kit): Part[] {
  const last = kit.buses.filter(({ out }) => out === undefined || !kit.buses.some(({ id }) => id === out))
  const nowhere: Bus = { ...createBus(NOWHERE, ''), mute: true }
  const endsIn = (bus: Bus | undefined): Kit => ({
    ...kit,
    pads: bus ? kit.pads.map((pad) => sentNowhere(kit, pad)) : kit.pads,
    buses: [...kit.buses.map((one) => (last.includes(one) && one !== bus ? { ...one, out: NOWHERE } : one)), nowhere],
  })
  const direct: Part = { name: 'Without a bus', kit: endsIn(undefined) }
  return [direct, ...last.map((bus) => ({ name: bus.name, kit: endsIn(bus) }))]
}

/** A pad of which what goes to the master by no bus is not heard; what it sends is. */
function sentNowhere(kit: Kit, pad: Pad): Pad {
  const own = padSettings(kit, pad).bus
  const isThere = (id: BusId | undefined) => id !== undefined && kit.buses.some((bus) => bus.id === id)
  return { ...pad, rays: pad.rays.map((ray) => (isThere(ray.bus ?? own) ? ray : { ...ray, bus: NOWHERE })) }
}

const CANNOT_PART: readonly string[] = ['drive', 'crush', 'transient']

/** What stems do not say, in words. */
function stemNotes(kit: Kit, { by, withEffects }: StemOptions): string[] {
  const notes: string[] = []
  if (withEffects && kit.inserts.some(({ bypass }) => !bypass)) notes.push('What stands in the whole kit works on all stems together and is in none of them, nor in the mix beside them.')
  if (!withEffects && insertsOf(kit).some(({ bypass }) => !bypass)) notes.push('Effects are left out.')
  if (withEffects && by !== 'bus')
    for (const bus of kit.buses) {
      const shared = bus.inserts.filter(({ kind, bypass }) => !bypass && CANNOT_PART.includes(kind))
      if (shared.length > 0 && sharersOf(kit, bus.id) > 1) notes.push(`${bus.name} has ${shared.map(({ kind }) => WORDS[kind]).join(' and ')}, which cannot be parted: what goes there adds up only nearly.`)
    }
  return notes
} // prettier-ignore

const WORDS: Readonly<Record<string, string>> = { drive: 'drive', crush: 'dirt', transient: 'attack and tail' }

/** How many pads come to a bus, by whatever way. */
function sharersOf(kit: Kit, busId: BusId): number {
  const reaches = (id: BusId | undefined): boolean => {
    const bus = kit.buses.find((one) => one.id === id)
    return bus !== undefined && (bus.id === busId || reaches(bus.out) || bus.sends.some((send) => reaches(send.busId)))
  }
  const rays = new Set<RayId>()
  for (const pad of kit.pads)
    for (const ray of pad.rays)
      if (reaches(ray.bus ?? padSettings(kit, pad).bus) || ray.sends.some((send) => reaches(send.busId))) rays.add(ray.id)
  return rays.size
}
