import { padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'

/** Notes that several pads answer, with the pads of each. */
function sharedNotes(kit: Kit): Map<number, Pad[]> {
  const byNote = new Map<number, Pad[]>()
  for (const pad of kit.pads) for (const note of pad.notes) byNote.set(note, [...(byNote.get(note) ?? []), pad])
  return new Map([...byNote].filter(([, pads]) => pads.length > 1))
}

const nameOf = (kit: Kit, pad: Pad) => padSettings(kit, pad).name || 'an unnamed pad'

/**
 * What two people made at once and did not mean so: pads that answer the same note or have the same name since a change
 * came from elsewhere. Nothing of it is undone; it is only said.
 */
export function clashesOf(before: Kit, after: Kit): string | undefined {
  const known = sharedNotes(before)
  for (const [note, pads] of sharedNotes(after)) {
    if (known.has(note)) continue
    return `${pads.map((pad) => nameOf(after, pad)).join(' and ')} both answer note ${note} since a change made elsewhere. Give one of them another note if it is not meant.`
  }
  const had = new Set(before.pads.map((pad) => pad.id))
  const names = before.pads.map((pad) => nameOf(before, pad))
  const twin = after.pads.find((pad) => !had.has(pad.id) && names.includes(nameOf(after, pad)))
  return twin && `Two pads are called ${nameOf(after, twin)} now: one of them was made elsewhere.`
}

/** A kit that came from elsewhere under a name that one here has already. */
export function sameName(kits: readonly Kit[], arrived: Kit): string | undefined {
  const twin = kits.find((kit) => kit.id !== arrived.id && kit.name === arrived.name)
  return twin && `A kit called “${arrived.name}” was made elsewhere as well. Both are on the list; rename one to tell them apart.`
}
