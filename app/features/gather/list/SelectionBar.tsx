import type { Source, SourceId } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { CHANNEL_CHOICES } from '../../../kit-view/channel-choices'
import { Chips } from '../../../ui/controls/Chips'
import { More } from '../../../ui/layout/More'
import type { Act } from '../../../ui/layout/More'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { PlaceSheet } from '../../place'
import { RenameSheet } from '../sheets/RenameSheet'
import { deletionWarning, favourSounds, removeSounds, setSounds } from './sound-actions'
import { TagSheet } from '../sheets/TagSheet'

interface Props {
  readonly shown: readonly Source[]
  readonly selection: ReadonlySet<SourceId>
  readonly onSelection: (selection: ReadonlySet<SourceId> | undefined) => void
}

type Asking = 'place' | 'names' | 'tags' | 'channel' | 'delete'

/** What is done to all that are selected; all that the search shows are selected in one tap. */
export function SelectionBar({ shown, selection, onSelection }: Props) {
  const palette = usePalette()
  const [asking, setAsking] = useState<Asking>()
  const chosen = useMemo(() => shown.filter((source) => selection.has(source.id)), [shown, selection])
  const stereo = chosen.filter((source) => source.info.channels > 1)
  const isNone = chosen.length === 0
  const isAll = chosen.length === shown.length
  const close = () => setAsking(undefined)
  const judge = (verdict: Source['verdict']) => setSounds(chosen, { verdict })
  const others: Act[] = [
    { label: 'Keep', icon: 'check-circle-outline', disabled: isNone, onPress: () => judge('keep') },
    { label: 'Pass', icon: 'close-circle-outline', disabled: isNone, onPress: () => judge('pass') },
    {
      label: chosen.length > 0 && chosen.every((source) => source.favourite) ? 'No favourites any more' : 'Make favourites',
      icon: 'heart-outline',
      disabled: isNone,
      onPress: () => favourSounds(chosen, !chosen.every((source) => source.favourite)),
    },
    { label: 'Channels', icon: 'speaker-multiple', disabled: stereo.length === 0, onPress: () => setAsking('channel') },
    { label: 'Delete', icon: 'delete-outline', disabled: isNone, onPress: () => setAsking('delete') },
  ]
  return (
    <View
      style={{
        borderTopWidth: 1,
        borderTopColor: palette.line,
        backgroundColor: palette.surface,
        paddingHorizontal: 8,
        paddingVertical: 4,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Text look="label" style={{ flex: 1, paddingLeft: 8 }} role="status">
          {`${chosen.length} of ${shown.length} selected`}
        </Text>
        <Button
          label={isAll ? 'None' : `All ${shown.length} shown`}
          onPress={() => onSelection(new Set(isAll ? [] : shown.map((source) => source.id)))}
        />
        <IconButton name="close" label="Stop selecting" onPress={() => onSelection(undefined)} />
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Button label="Put on pads" kind="quiet" disabled={isNone} onPress={() => setAsking('place')} />
        <Button label="Rename" kind="quiet" disabled={isNone} onPress={() => setAsking('names')} />
        <Button label="Tag" kind="quiet" disabled={isNone} onPress={() => setAsking('tags')} />
        <View style={{ flex: 1 }} />
        <More title={`${chosen.length} selected`} kind="quiet" acts={others} />
      </View>
      {asking === 'place' && <PlaceSheet files={chosen} onClose={close} />}
      {asking === 'names' && <RenameSheet sounds={chosen} onClose={close} />}
      {asking === 'tags' && <TagSheet sounds={chosen} onClose={close} />}
      {asking === 'channel' && (
        <Sheet title="Channels" isOpen onClose={close}>
          <Chips
            label={`Clips of ${stereo.length} stereo ${stereo.length === 1 ? 'sound' : 'sounds'} take`}
            options={CHANNEL_CHOICES}
            value={stereo.every((source) => source.channel === stereo[0].channel) ? stereo[0]?.channel : undefined}
            onChoose={(channel) => setSounds(stereo, { channel })}
          />
        </Sheet>
      )}
      {asking === 'delete' && (
        <DeleteSheet
          sounds={chosen}
          onClose={close}
          onDone={() => {
            close()
            onSelection(new Set())
          }}
        />
      )}
    </View>
  )
}

/** Says what a deletion touches before it is done. */
export function DeleteSheet({
  sounds,
  onClose,
  onDone,
}: {
  readonly sounds: readonly Source[]
  readonly onClose: () => void
  readonly onDone: () => void
}) {
  const warning = useMemo(() => deletionWarning(sounds), [sounds])
  const what = sounds.length === 1 ? `“${sounds[0].name}”` : `${sounds.length} sounds`
  return (
    <Sheet
      title={`Delete ${what}?`}
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button label={`Delete ${what}`} kind="coral" onPress={() => void removeSounds(sounds).then(onDone)} />
          <Button label="Keep" onPress={onClose} />
        </>
      }
    >
      <Text>{warning || 'No kit uses this.'}</Text>
      <Text look="small" tone="muted">
        Undo brings everything back.
      </Text>
    </Sheet>
  )
}
