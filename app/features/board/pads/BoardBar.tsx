import { createPad, freeNote } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../documents/make-id'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { editKit } from '../../../kit-view'
import { session, useSession } from '../../../kit-view/session'
import { MixerSheet } from '../mixer/MixerSheet'
import { PadsSheet } from '../several/PadsSheet'

interface Props {
  readonly kit: Kit
  readonly isArranging: boolean
  readonly onArrange: (isArranging: boolean) => void
}

/** One more pad, empty, at the end. */
export function addPad(kit: Kit): void {
  const pad = createPad(makeId, { name: `Pad ${kit.pads.length + 1}` }, freeNote(kit))
  editKit(kit.id, [{ type: 'addPad', pad, index: kit.pads.length }])
  session.setState({ padId: pad.id })
}

const SIZE_STEP = 1.15

/** The arrangement of pads, what holds for several, and one more pad. */
export function BoardBar({ kit, isArranging, onArrange }: Props) {
  const isWide = useIsWide()
  const most = isWide ? 16 : 8
  const hearsAgain = useSession((state) => state.hearsAgain)
  const [isMixing, setMixing] = useState(false)
  const [isEditing, setEditing] = useState(false)
  const { columns, size = 1 } = kit.arrangement
  const arrange = (changes: Partial<Kit['arrangement']>) =>
    editKit(kit.id, [{ type: 'setKit', fields: { arrangement: { ...kit.arrangement, ...changes } } }])
  const setColumns = (count: number) => arrange({ columns: count })
  const setSize = (factor: number) => arrange({ size: Math.min(2.5, Math.max(0.4, Math.round(100 * size * factor) / 100)) })
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', paddingHorizontal: 12, height: 48 }}>
      <IconButton
        name="cursor-move"
        label={isArranging ? 'The pads are in their places' : 'Arrange the pads'}
        on={isArranging}
        disabled={kit.pads.length < 2}
        onPress={() => onArrange(!isArranging)}
      />
      {(isWide || isArranging) && (
        <>
          <IconButton name="minus" label="Fewer columns" disabled={columns <= 1} onPress={() => setColumns(columns - 1)} />
          <Text look="figures" tone="muted" aria-label={`${columns} columns`}>
            {columns}
          </Text>
          <IconButton name="plus" label="More columns" disabled={columns >= most} onPress={() => setColumns(columns + 1)} />
        </>
      )}
      {isArranging && (
        <>
          <IconButton name="circle-small" label="Smaller pads" disabled={size <= 0.4} onPress={() => setSize(1 / SIZE_STEP)} />
          <IconButton name="circle-outline" label="Larger pads" disabled={size >= 2.5} onPress={() => setSize(SIZE_STEP)} />
        </>
      )}
      <View style={{ flex: 1 }} />
      {(isWide || !isArranging) && (
        <>
          <IconButton
            name={hearsAgain ? 'ear-hearing' : 'ear-hearing-off'}
            label="Hear the pad after each change"
            on={hearsAgain}
            onPress={() => session.setState({ hearsAgain: !hearsAgain })}
          />
          <IconButton
            name="hand-back-left-outline"
            label="Hands: keys, notes and MIDI"
            onPress={() => router.navigate(`/kit/${kit.id}/hands`)}
          />
          <IconButton name="tune-vertical" label="Mixer" disabled={kit.pads.length === 0} onPress={() => setMixing(true)} />
          <IconButton name="select-multiple" label="Edit several pads" disabled={kit.pads.length < 2} onPress={() => setEditing(true)} />
          <View style={{ width: 4 }} />
          <Button label="Add pad" onPress={() => addPad(kit)} disabled={kit.pads.length >= 128} />
        </>
      )}
      {isMixing && <MixerSheet kit={kit} onClose={() => setMixing(false)} />}
      {isEditing && <PadsSheet kit={kit} onClose={() => setEditing(false)} />}
    </View>
  )
}
