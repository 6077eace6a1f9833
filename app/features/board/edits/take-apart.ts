import { applyEdit, freeNote, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'

import { duplicateEdits } from './pad-edits'

/** What a pad is taken apart into: each becomes a pad of its own. */
export type PadPart = 'turns' | 'bands' | 'rays'

const MOST_PADS = 128

/** How many of each there are to take apart. */
export function partsOf(pad: Pad): Record<PadPart, number> {
  const turns = pad.bands.reduce((sum, band) => sum + band.turns.length, 0)
  return { turns, bands: pad.bands.length, rays: pad.rays.length }
}

interface Part {
  readonly name: string
  readonly pad: Pad
}

/** The pad as each of its parts: with all its settings, and that part of its sound alone. */
function partPads(pad: Pad, name: string, by: PadPart): Part[] {
  if (by === 'rays') return pad.rays.map((ray) => ({ name: `${name}, ${ray.name}`, pad: { ...pad, rays: [{ ...ray, mute: false }], bands: onlyRay(pad, ray.id) } })) // prettier-ignore
  const whole = (band: Pad['bands'][number]) => ({ ...band, fromVelocity: 1, blendVelocities: 0 })
  const bands = by === 'bands' ? pad.bands.map(whole) : pad.bands.flatMap((band) => band.turns.map((turn) => ({ ...whole(band), turns: [turn] }))) // prettier-ignore
  return bands.map((band, i) => ({ name: `${name} ${i + 1}`, pad: { ...pad, bands: [band] } }))
}

function onlyRay(pad: Pad, rayId: string): Pad['bands'] {
  return pad.bands.map((band) => ({
    ...band,
    turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).filter(([id]) => id === rayId)) })),
  }))
}

/** Takes a pad apart in one step: it keeps its first part, the others become pads behind it, each with a free note. */
export function takeApartEdits(kit: Kit, pad: Pad, by: PadPart): KitEdit[] {
  const name = padSettings(kit, pad).name || 'Pad'
  const [first, ...others] = partPads(pad, name, by).slice(0, 1 + MOST_PADS - kit.pads.length)
  if (!first || others.length === 0) return []
  const edits: KitEdit[] = []
  let grown = kit
  const add = (made: readonly KitEdit[]) => {
    edits.push(...made)
    grown = made.reduce(applyEdit, grown)
  }
  for (const [i, { name: called, pad: part }] of others.entries()) {
    const note = freeNote(grown)
    const { copy, edits: made } = duplicateEdits(grown, part)
    const named: Pad = { ...copy, notes: note === undefined ? [] : [note], own: { ...copy.own, name: called.slice(0, 120) } }
    const index = kit.pads.indexOf(pad) + 1 + i
    add(made.map((edit) => (edit.type === 'addPad' ? { ...edit, pad: named, index } : edit)))
  }
  add([
    { type: 'setPadFilling', padId: pad.id, rays: first.pad.rays, bands: first.pad.bands, spread: 'even' },
    { type: 'setPad', padId: pad.id, own: { name: first.name.slice(0, 120) } },
  ])
  return edits
}

/** What would be left over where a kit has not room for all, in words. */
export function leftOverByTakingApart(kit: Kit, pad: Pad, by: PadPart): string | undefined {
  const over = partsOf(pad)[by] - 1 - (MOST_PADS - kit.pads.length)
  return over > 0 ? `A kit holds ${MOST_PADS} pads: the last ${over} would be left out.` : undefined
}
