import type { Kit } from '@heliaster/core/kit'
import { tableEdits } from '@heliaster/core/ties'
import type { TableReading } from '@heliaster/core/ties'

import { makeId } from '../../../../documents/make-id'
import { editKit } from '../../../../kit-view'
import { padName } from '../../../../kit-view/use-kit'
import { Button } from '../../../../ui/controls/Button'
import { notify } from '../../../../ui/layout/notices'
import { Sheet } from '../../../../ui/layout/Sheet'
import { Text } from '../../../../ui/layout/Text'
import { DrumGrid } from './DrumGrid'
import { drumWords } from '../../../../kit-view/drum-words'

interface Props {
  readonly kit: Kit
  readonly reading: TableReading
  readonly onClose: () => void
  readonly onMade?: () => void
}

/** Pads as one drum, as their names tell it: seen before anything is changed. */
export function DrumOfNames({ kit, reading, onClose, onMade }: Props) {
  const { name, spots, openings, cells } = reading
  const pads = new Map(kit.pads.map((pad) => [pad.id, pad]))
  const { count, holes } = drumWords(reading)
  const make = () => {
    editKit(kit.id, tableEdits(makeId, kit, reading))
    notify(`${name || 'They'} ${name ? 'is' : 'are'} one drum now.`)
    onClose()
    onMade?.()
  }
  return (
    <Sheet
      title={name ? `${name} as one drum` : 'One drum of these'}
      isOpen
      onClose={onClose}
      actions={<Button label="Make this drum" kind="main" onPress={make} />}
    >
      <Text look="small" tone="muted">
        {`As their names tell, these are ${count}. Nothing that fills them changes.`}
      </Text>
      <DrumGrid
        columns={openings.map((opening) => ({ name: opening || (openings.length > 1 ? 'Not said' : 'Pad') }))}
        rows={spots.map((spot, i) => ({
          name: spot || 'Not said',
          cells: cells[i]!.map((cell) => (cell ? { words: padName(kit, pads.get(cell)!) } : {})),
        }))}
      />
      {holes && (
        <Text look="small" tone="coral">
          {`${holes} They get empty pads, which borrow from the nearest until they are filled.`}
        </Text>
      )}
    </Sheet>
  )
}
