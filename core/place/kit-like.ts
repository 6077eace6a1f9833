import type { KitId, MakeId } from '../kit/ids'
import type { GrooveString } from '../kit/grooves'
import type { Insert, Kit, Pad, Ray } from '../kit/kit'
import { audioInUse } from '../kit/resolve'
import { freeBead } from './free-bead'

const emptyRay = (ray: Ray): Ray => (ray.source.kind === 'clips' ? { ...ray, source: { kind: 'clips' } } : ray)
const emptyPad = (pad: Pad): Pad => ({ ...pad, rays: pad.rays.map(emptyRay), bands: [] })

/** A room waits for another recording. */
function withoutImpulse({ audio: _sound, ...insert }: Insert): Insert {
  return insert
}

/**
 * A kit to begin with like another one: its pads with their notes, settings, rays and ties, its mix, its grooves and its tempo,
 * and none of its sounds.
 */
export function kitLike(makeId: MakeId, kit: Kit, name: string): Kit {
  const sounds = new Set<string>(audioInUse(kit))
  const free = (string: GrooveString): GrooveString => ({ ...string, beads: string.beads.map(freeBead) })
  return {
    ...kit,
    id: makeId<KitId>('kit'),
    name,
    pads: kit.pads.map(emptyPad),
    ties: kit.ties.filter(({ kind }) => kind !== 'parts'),
    grooves: kit.grooves.map((groove) => ({ ...groove, strings: groove.strings.map(free) })),
    inserts: kit.inserts.map(withoutImpulse),
    buses: kit.buses.map((bus) => (bus.inserts.some(({ audio }) => audio) ? { ...bus, inserts: bus.inserts.map(withoutImpulse) } : bus)),
    audio: Object.fromEntries(Object.entries(kit.audio).filter(([hash]) => !sounds.has(hash))),
  }
}
