import { createGroove, withBead } from '@heliaster/core/groove'
import type { Family, Groove, Kit, Pad } from '@heliaster/core/kit'

import { makeId } from '../documents/make-id'
import { aKitOf, aPad } from './a-kit'

/** Pads by their names and families, each with one turn. */
export function padsNamed(...names: readonly [name: string, family: Family][]): Pad[] {
  return names.map(([name, family], i) => {
    const pad = aPad(1)
    return { ...pad, id: `pad-${i + 1}` as never, notes: [36 + i], own: { ...pad.own, name, family } }
  })
}

/** A kit of an oar, a hull and a bell with one groove: the oar on every beat, the hull on the second and fourth. */
export function aGroovyKit(change: (groove: Groove) => Groove = (groove) => groove): Kit {
  const pads = padsNamed(['Oar', 'kick'], ['Hull', 'snare'], ['Bell', 'hat'])
  let groove: Groove = { ...createGroove(makeId, 'Ebb'), id: 'groove-ebb' as never }
  for (const step of [0, 4, 8, 12]) groove = withBead(groove, pads[0].id, step, 100)
  for (const step of [4, 12]) groove = withBead(groove, pads[1].id, step, 60)
  return { ...aKitOf(...pads), id: 'kit-g' as never, grooves: [change(groove)] }
}
