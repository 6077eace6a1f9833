import type { Kit } from '@heliaster/core/kit'

import { Button } from '../../ui/controls/Button'
import { NameField } from '../../ui/controls/NameField'
import { Sheet } from '../../ui/layout/Sheet'
import { deleteKit, duplicateKit, renameKit } from './kit-actions'

interface Props {
  readonly kit: Kit | undefined
  readonly onClose: () => void
}

export function KitMenu({ kit, onClose }: Props) {
  const then = (act: (kit: Kit) => unknown) => () => {
    if (kit) act(kit)
    onClose()
  }
  return (
    <Sheet title={kit?.name ?? ''} isOpen={kit !== undefined} onClose={onClose}>
      {kit && <NameField label="Name" value={kit.name} onName={(name) => renameKit(kit, name)} />}
      <Button label="Duplicate" icon="content-copy" onPress={then(duplicateKit)} />
      <Button label="Delete" icon="trash-can-outline" onPress={then(deleteKit)} />
    </Sheet>
  )
}
