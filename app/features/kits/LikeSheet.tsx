import type { Kit, KitId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { KitChoices } from '../../kit-view/KitChoices'
import { PadTile } from '../../kit-view/PadTile'
import { useKitById, useOtherKits } from '../../kit-view/use-other-kits'
import { Button } from '../../ui/controls/Button'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { countWords } from './like-words'

interface Props {
  readonly onClose: () => void
  readonly onBegin: (kit: Kit) => void
}

/** A kit begun like another one: which it is, and what of it comes, seen before it is made. */
export function LikeSheet({ onClose, onBegin }: Props) {
  const all = useOtherKits()
  const [id, setId] = useState<KitId>()
  const kit = useKitById(id)
  return (
    <Sheet
      title="Begin like another kit"
      isOpen
      onClose={onClose}
      actions={
        <Button label={kit ? `Begin like ${kit.name}` : 'Choose a kit'} kind="main" disabled={!kit} onPress={() => kit && onBegin(kit)} />
      }
    >
      <Text look="small" tone="muted">
        Its pads with their names, notes and settings, its ties, mix and grooves; none of its sounds.
      </Text>
      <KitChoices label="Kit" kits={all} id={id} kit={kit} onChoose={setId} />
      {kit && (
        <>
          <Text look="small">{countWords(kit)}</Text>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }} pointerEvents="none" aria-hidden>
            {kit.pads.map((pad) => (
              <PadTile
                key={pad.id}
                kit={kit}
                pad={{ ...pad, bands: [] }}
                role="checkbox"
                isChosen={false}
                size={44}
                onPress={() => undefined}
              />
            ))}
          </View>
        </>
      )}
    </Sheet>
  )
}
