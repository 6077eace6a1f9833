import type { Kit, Pad, PadId } from '@heliaster/core/kit'
import { useState } from 'react'

import { PadChoices } from '../../../kit-view/PadChoices'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly chosen: readonly PadId[]
  readonly onChoose: (padIds: readonly PadId[]) => void
  readonly onClose: () => void
}

/** Which pads are shaped together with this one. */
export function SeveralPads({ kit, pad, chosen, onChoose, onClose }: Props) {
  const [padIds, setPadIds] = useState(chosen.length > 0 ? chosen : [pad.id])
  const others = padIds.filter((id) => id !== pad.id).length
  const take = () => {
    onChoose([pad.id, ...padIds.filter((id) => id !== pad.id)])
    onClose()
  }
  return (
    <Sheet
      isOpen
      title={`Shape several with ${padName(kit, pad)}`}
      onClose={onClose}
      actions={<Button label={others === 0 ? 'Choose others too' : `Shape these ${others + 1}`} kind="main" disabled={others === 0} onPress={take} />}
    >
      <Text look="small" tone="muted">
        {`What you set then is set on all of them alike; ${padName(kit, pad)} is what you see and hear.`}
      </Text>
      <PadChoices kit={kit} chosen={padIds} onChoose={setPadIds} />
    </Sheet>
  )
} // prettier-ignore
