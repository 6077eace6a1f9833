import { padById } from '@heliaster/core/kit'

import { cellChoices, cellOf } from '../../../kit-view/cell-choices'
import { Chips } from '../../../ui/controls/Chips'
import type { FieldProps } from './BeadPanel'
import { Field } from './Field'

/** Which of the pad's cells it plays; the pad chooses where it asks for none. */
export function CellField({ hands, beads }: FieldProps) {
  const pad = padById(hands.kit, beads[0]!.string.padId)
  if (!pad) return null
  const cells = cellChoices(pad)
  const choose = (value: string) => hands.fields({ turn: cells.find((cell) => cell.value === value)?.cell.turn, band: undefined })
  return (
    <Field clears="As the pad chooses" onClear={() => hands.fields({ turn: undefined, band: undefined })}>
      <Chips label="Which turn" isOneLine options={cells} value={cellOf(beads.map(({ bead }) => bead))} onChoose={choose} />
    </Field>
  )
}
