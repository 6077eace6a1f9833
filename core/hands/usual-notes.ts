import { broadFamily } from '../kit/families'
import type { BroadFamily, Family } from '../kit/families'
import type { PadId } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { padSettings } from '../kit/resolve'

/** Words of a name that choose among the notes of a family; the first that fits. */
interface Place {
  readonly note: number
  readonly words: string
  readonly names?: RegExp
  /** The kind that stands here before all others of its family. */
  readonly kind?: Family
}

/** Where the trade looks for drums. Source: General MIDI System Level 1, percussion key map (MIDI Association, 1991). */
const PLACES: Readonly<Record<BroadFamily, readonly Place[]>> = {
  kick: [{ note: 36, words: 'bass drum 1' }, { note: 35, words: 'acoustic bass drum' }],
  snare: [
    { note: 37, words: 'side stick', names: /stick|rim|cross/i },
    { note: 38, words: 'acoustic snare' },
    { note: 40, words: 'electric snare' },
  ],
  hat: [
    { note: 46, words: 'open hi-hat', names: /open|loose|wash/i, kind: 'openHat' },
    { note: 44, words: 'pedal hi-hat', names: /pedal|foot|chick/i },
    { note: 42, words: 'closed hi-hat', kind: 'closedHat' },
  ],
  tom: [
    { note: 41, words: 'low floor tom', kind: 'lowTom' },
    { note: 43, words: 'high floor tom', kind: 'lowTom' },
    { note: 45, words: 'low tom', kind: 'midTom' },
    { note: 47, words: 'low-mid tom', kind: 'midTom' },
    { note: 48, words: 'hi-mid tom', kind: 'highTom' },
    { note: 50, words: 'high tom', kind: 'highTom' },
  ],
  cymbal: [
    { note: 51, words: 'ride cymbal 1', names: /ride/i, kind: 'ride' },
    { note: 55, words: 'splash cymbal', names: /splash/i, kind: 'splash' },
    { note: 52, words: 'Chinese cymbal', names: /chin/i },
    { note: 49, words: 'crash cymbal 1', kind: 'crash' },
    { note: 57, words: 'crash cymbal 2', kind: 'crash' },
    { note: 59, words: 'ride cymbal 2', kind: 'ride' },
  ],
  clap: [{ note: 39, words: 'hand clap' }],
  shaker: [
    { note: 54, words: 'tambourine', names: /tamb|jingle/i },
    { note: 69, words: 'cabasa', names: /cabasa/i },
    { note: 70, words: 'maracas' },
    { note: 82, words: 'shaker' },
  ],
  bell: [
    { note: 53, words: 'ride bell', names: /ride/i },
    { note: 56, words: 'cowbell' },
    { note: 67, words: 'high agogo' },
    { note: 68, words: 'low agogo' },
    { note: 81, words: 'open triangle' },
    { note: 80, words: 'mute triangle' },
  ],
  wood: [
    { note: 75, words: 'claves', names: /clave/i },
    { note: 76, words: 'high wood block' },
    { note: 77, words: 'low wood block' },
  ],
  noise: [{ note: 73, words: 'short guiro' }, { note: 74, words: 'long guiro' }],
  other: [],
} // prettier-ignore

/** The family that the trade plays on a note, the kind where one is said, and what it calls it; undefined for a note of none. */
export function familyOfNote(note: number): { readonly family: Family; readonly words: string } | undefined {
  for (const [family, places] of Object.entries(PLACES) as [BroadFamily, readonly Place[]][]) {
    const place = places.find((one) => one.note === note)
    if (place) return { family: place.kind ?? family, words: place.words }
  }
  return undefined
}

/** What happens to a pad's notes. */
export interface UsualNote {
  readonly padId: PadId
  readonly note: number
  /** What the trade calls that note; nothing for a note that has no name for this family. */
  readonly words?: string
}

export interface UsualNotes {
  readonly notes: readonly UsualNote[]
  /** Pads of a family that has no room left on its usual notes, and the pads that have it. */
  readonly crowded: readonly { readonly padId: PadId; readonly by: readonly PadId[] }[]
  /** Pads whose notes lose: several that they answered become one. */
  readonly fewer: readonly PadId[]
}

/** Notes of no family, from here up and then down. */
const FIRST_FREE = 84

/**
 * Proposes a note for each pad, where players and programs look for its family; changes nothing. Pads whose kind or name
 * chooses a place come first, then the others in their order; toms of no size rise by their root note where all have one. A pad that finds no
 * place left, or whose family has none, gets a free note that belongs to none.
 */
export function usualNotes(kit: Kit): UsualNotes {
  const taken = new Map<number, PadId>()
  const given = new Map<PadId, UsualNote>()
  const crowded: { padId: PadId; by: PadId[] }[] = []
  const pads = kit.pads.map((pad) => ({ id: pad.id, ...padSettings(kit, pad) }))
  const give = (padId: PadId, place: Omit<Place, 'names'>) => {
    taken.set(place.note, padId)
    given.set(padId, { padId, note: place.note, words: place.words })
  }
  for (const { id, family, name } of pads) {
    const places = PLACES[broadFamily(family)].filter(({ note }) => !taken.has(note))
    const meant = places.find(({ kind }) => kind === family) ?? places.find(({ names }) => names?.test(name))
    if (meant) give(id, meant)
  }
  const toms = pads.filter(({ id, family }) => broadFamily(family) === 'tom' && !given.has(id))
  if (toms.every(({ rootNote }) => rootNote !== undefined)) toms.sort((a, b) => a.rootNote! - b.rootNote!)
  spread(toms.length, PLACES.tom.filter(({ note }) => !taken.has(note))).forEach((place, i) => give(toms[i]!.id, place))
  for (const { id, family } of pads) {
    if (given.has(id)) continue
    const places = PLACES[broadFamily(family)].filter(({ names }) => !names)
    const free = places.find(({ note }) => !taken.has(note))
    if (free) give(id, free)
    else if (places.length > 0) crowded.push({ padId: id, by: PLACES[broadFamily(family)].flatMap(({ note }) => taken.get(note) ?? []) })
  }
  const belongs = new Set(Object.values(PLACES).flatMap((places) => places.map(({ note }) => note)))
  for (const { id } of pads) {
    if (given.has(id)) continue
    const note = freeNoteBeside(taken, belongs)
    if (note === undefined) continue
    taken.set(note, id)
    given.set(id, { padId: id, note })
  }
  const fewer = kit.pads.filter(({ id, notes }) => notes.length > 1 && given.has(id)).map(({ id }) => id)
  return { notes: pads.flatMap(({ id }) => given.get(id) ?? []), crowded, fewer }
} // prettier-ignore

/** So many places out of those there are, as far from each other as they go; fewer where there are not so many. */
function spread(count: number, places: readonly Place[]): Place[] {
  if (count >= places.length) return [...places]
  if (count === 1) return [places[places.length >> 1]!]
  return Array.from({ length: count }, (_, i) => places[Math.round((i * (places.length - 1)) / (count - 1))]!)
}

function freeNoteBeside(taken: ReadonlyMap<number, PadId>, belongs: ReadonlySet<number>): number | undefined {
  const order = Array.from({ length: 128 }, (_, i) => (i < 128 - FIRST_FREE ? FIRST_FREE + i : 127 - i))
  return order.find((note) => !taken.has(note) && !belongs.has(note)) ?? order.find((note) => !taken.has(note))
}
