import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { applyEdit } from '@heliaster/core/kit'
import { tableEdits, tablesSaid } from '@heliaster/core/ties'
import type { TableReading } from '@heliaster/core/ties'

import { makeId } from '../../documents/make-id'
import { drumWords } from '../../kit-view/drum-words'
import { Toggle } from '../../ui/controls/Toggle'

/** Which of the pads to be are one drum struck in several places or opened by degrees, as their names say. */
export function drumsAmong(kit: Kit, pads: readonly Pad[]): readonly TableReading[] {
  if (pads.length < 2) return []
  return tablesSaid({ ...kit, pads: [...kit.pads, ...pads] }, pads.map(({ id }) => id)) // prettier-ignore
}

/** The edits that lay pads, and then those that make drums of them. */
export function withDrums(kit: Kit, edits: readonly KitEdit[], drums: readonly TableReading[]): KitEdit[] {
  const all = [...edits]
  let grown = edits.reduce(applyEdit, kit)
  for (const drum of drums) {
    const made = tableEdits(makeId, grown, drum)
    all.push(...made)
    grown = made.reduce(applyEdit, grown)
  }
  return all
}

interface Props {
  readonly drums: readonly TableReading[]
  /** Their names, of those that become one drum. */
  readonly chosen: ReadonlySet<string>
  readonly onChoose: (chosen: ReadonlySet<string>) => void
}

/** Offers to make one drum of pads that are one, with what is missing of it. */
export function DrumsOffer({ drums, chosen, onChoose }: Props) {
  return drums.map((drum) => {
    const { count, holes } = drumWords(drum)
    return (
      <Toggle
        key={drum.name}
        label={`${drum.name || 'They'} as one drum`}
        words={`${count}. ${holes ?? 'None is missing.'}`}
        value={chosen.has(drum.name)}
        onChange={(is) => onChoose(new Set(is ? [...chosen, drum.name] : [...chosen].filter((name) => name !== drum.name)))}
      />
    )
  })
}
