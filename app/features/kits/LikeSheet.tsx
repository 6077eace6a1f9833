import type { Kit, KitId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { kits } from '../../documents'
import { PadTile } from '../../kit-view/PadTile'
import { useKitById } from '../../kit-view/use-other-kits'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { countWords } from './like-words'

interface Props {
  readonly onClose: () => void
  readonly onBegin: (kit: Kit) => void
}

/** A kit begun like another one: which it is, and what of it comes, seen before it is made. */
export function LikeSheet({ onClose, onBegin }: Props) {
  const entries = useStore(kits.store, (state) => state.entries)
  const elsewhere = useStore(kits.store, (state) => state.elsewhere)
  const all = [...Object.values(entries).map(({ doc }) => doc), ...Object.values(elsewhere)]
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
      <Chips
        label="Kit"
        options={all
          .map((one) => ({ value: one.id as string, text: one.name || 'A kit without a name' }))
          .sort((a, b) => a.text.localeCompare(b.text))}
        value={id as string | undefined}
        onChoose={(chosen) => setId(chosen as KitId)}
      />
      {id && !kit && <Text tone="muted">It is on its way from the server.</Text>}
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
