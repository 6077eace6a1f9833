import { MID_WARNING_DB } from '@heliaster/core/audio'
import type { Source } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { CHANNEL_CHOICES } from '../../../kit-view/channel-choices'
import { Chips } from '../../../ui/controls/Chips'
import { FamilyChoice } from '../../../kit-view/FamilyChoice'
import { MiniWave } from '../../../kit-view/MiniWave'
import { NameField } from '../../../ui/controls/NameField'
import { Sheet } from '../../../ui/layout/Sheet'
import { noteName } from '../../../kit-view/note-name'
import { Text } from '../../../ui/layout/Text'
import { showKin, soundingOfSource } from '../list/kin'
import { takeBack, takeOut } from '../list/out-and-back'
import { DeleteSheet } from '../list/SelectionBar'
import { LayParts, PutOnPad } from '../../place'
import { useKit } from '../../../kit-view'
import { hearSound, favourSounds, setSounds, usedWords } from '../list/sound-actions'
import { lengthText } from '../list/SourceRow'
import { TagSheet } from './TagSheet'

interface Props {
  readonly source: Source
  readonly onClose: () => void
  readonly onCut: (source: Source) => void
}

/** All about one sound: its name, what it is, what its clips take, out and back, and off the list. */
export function SoundSheet({ source, onClose, onCut }: Props) {
  const [asking, setAsking] = useState<'tags' | 'delete'>()
  const [busy, setBusy] = useState(false)
  const sounding = soundingOfSource(source)
  const kit = useKit()
  const likeThis = () => {
    if (sounding) showKin({ name: source.name, sounding, id: source.id })
    onClose()
  }
  if (asking === 'tags') return <TagSheet sounds={[source]} onClose={() => setAsking(undefined)} />
  if (asking === 'delete') return <DeleteSheet sounds={[source]} onClose={() => setAsking(undefined)} onDone={onClose} />
  return (
    <Sheet
      title={source.name}
      isOpen
      onClose={onClose}
      actions={
        <Button
          label="Cut"
          kind="main"
          onPress={() => {
            onClose()
            onCut(source)
          }}
        />
      }
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <IconButton name="play-outline" label={`Hear ${source.name}`} onPress={() => hearSound(source)} />
        <MiniWave audio={source.audio} width={200} height={48} />
        <View style={{ flex: 1 }} />
        <IconButton
          name={source.favourite ? 'heart' : 'heart-outline'}
          tone={source.favourite ? 'coral' : 'ink'}
          label={source.favourite ? 'No favourite any more' : 'Make it a favourite'}
          on={source.favourite}
          onPress={() => favourSounds([source], !source.favourite)}
        />
      </View>
      <Text look="figures" tone="muted">
        {factsOf(source)}
      </Text>
      {kit && <PutOnPad kit={kit} source={source} onPut={onClose} />}
      {kit && <LayParts kit={kit} source={source} onLaid={onClose} />}
      <Text look="small" tone="muted">
        {usedWords(source)}
      </Text>
      <NameField
        label="Name"
        value={source.name}
        onName={(name) => setSounds([source], { name: name.trim().slice(0, 255) || source.name })}
      />
      {source.info.channels > 1 && <ChannelChoice source={source} />}
      <FamilyChoice value={source.family} onChoose={(family) => setSounds([source], { family })} />
      <View style={{ gap: 8 }}>
        <Button label="Sounds like this" icon="approximately-equal" disabled={!sounding} onPress={likeThis} />
        <Button
          label={source.tags.length > 0 ? `Tags: ${source.tags.join(', ')}` : 'Tags'}
          icon="tag-outline"
          onPress={() => setAsking('tags')}
        />
        <Button label="Take out to another program" icon="export-variant" onPress={() => void takeOut(source)} />
        <Button
          label="Take its changed version back"
          icon="import"
          busy={busy}
          onPress={() => {
            setBusy(true)
            void takeBack(source).finally(() => setBusy(false))
          }}
        />
        <Button label="Delete" icon="delete-outline" onPress={() => setAsking('delete')} />
      </View>
    </Sheet>
  )
}

function toldOf({ told = {} }: Source): string[] {
  const said = [
    ...(told.tempoBpm === undefined ? [] : [`${told.tempoBpm} BPM`]),
    ...(told.beats === undefined ? [] : [`${told.beats} beats`]),
    ...(told.rootNote === undefined ? [] : [`root note ${noteName(told.rootNote)}`]),
  ]
  return said.length > 0 ? [`its file says ${said.join(', ')}`] : []
}

function factsOf(source: Source): string {
  const { info, measured, origin, strikes, addedAt } = source
  const level = measured ? [`peak ${measured.peakDb.toFixed(1)} dB`, `${measured.loudnessDb.toFixed(1)} LUFS`] : []
  const came = { recorded: 'recorded here', imported: 'imported', takenBack: 'taken back from the pads' }[origin]
  const date = addedAt > 0 ? ` ${new Date(addedAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })}` : ''
  const told = toldOf(source)
  const log = strikes ? [`${strikes.length} ${strikes.length === 1 ? 'strike' : 'strikes'} written down with it`] : []
  return [
    lengthText(source),
    `${(info.sampleRateHz / 1000).toFixed(1)} kHz`,
    info.channels === 1 ? 'mono' : info.channels === 2 ? 'stereo' : `${info.channels} channels`,
    ...level,
    `${came}${date}`,
    ...log,
    ...told,
  ].join(', ')
}

function ChannelChoice({ source }: { readonly source: Source }) {
  const { correlation, midLossDb } = source.measured ?? {}
  const cancels = midLossDb !== undefined && midLossDb < MID_WARNING_DB
  return (
    <View style={{ gap: 6 }}>
      <Chips
        label="New clips take"
        options={CHANNEL_CHOICES}
        value={source.channel}
        onChoose={(channel) => setSounds([source], { channel })}
      />
      {correlation !== undefined && (
        <Text
          look="small"
          tone={cancels && source.channel === 'mid' ? 'coral' : 'muted'}
          role={cancels && source.channel === 'mid' ? 'alert' : undefined}
        >
          {`Left and right: correlation ${correlation.toFixed(2)}. `}
          {cancels
            ? `They cancel: mid would lose ${Math.abs(midLossDb).toFixed(0)} dB. Take left or right.`
            : midLossDb !== undefined && midLossDb < -2
              ? `Mid loses ${Math.abs(midLossDb).toFixed(1)} dB.`
              : 'Mid loses next to nothing.'}
        </Text>
      )}
    </View>
  )
}
