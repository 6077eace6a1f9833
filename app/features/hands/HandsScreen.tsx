import { useState } from 'react'
import { ScrollView, View } from 'react-native'

import { useKit } from '../../kit-view'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Text } from '../../ui/layout/Text'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { usePalette } from '../../ui/theme/theme'
import { InputsPart } from './inputs/InputsPart'
import { KeysPart } from './keys/KeysPart'
import { NotesPart } from './notes/NotesPart'
import { PracticeController } from './practice/ControllerLater'
import { TillersPart } from './tillers/TillersPart'
import { TimingPart } from './timing/TimingPart'

const PARTS = [
  { value: 'inputs', text: 'Inputs' },
  { value: 'keys', text: 'Keys' },
  { value: 'notes', text: 'Notes' },
  { value: 'tillers', text: 'Tillers' },
  { value: 'practice', text: 'Practice' },
  { value: 'timing', text: 'Timing' },
] as const
type PartName = (typeof PARTS)[number]['value']

/** What plays the pads: fingers, keys, notes and controllers, and how each is felt. */
export function HandsScreen() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kit = useKit()
  const [part, setPart] = useState<PartName>('inputs')
  if (!kit) return null
  const shown = {
    inputs: <InputsPart />,
    keys: <KeysPart kit={kit} />,
    notes: <NotesPart kit={kit} />,
    tillers: <TillersPart kit={kit} />,
    practice: <PracticePart />,
    timing: <TimingPart />,
  }[part]
  const parts = (
    <Chips
      label="Hands"
      hideLabel
      isOneLine
      options={PARTS.filter(({ value }) => !isWide || value !== 'inputs')}
      value={part}
      onChoose={setPart}
    />
  )
  if (!isWide)
    return (
      <ScrollView contentContainerStyle={{ padding: 20, gap: 16 }}>
        <Text look="title">Hands</Text>
        {parts}
        {shown}
      </ScrollView>
    )
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      <ScrollView
        style={{ width: 460, flexGrow: 0, flexShrink: 0, borderRightWidth: 1, borderRightColor: palette.faint }}
        contentContainerStyle={{ padding: 20, gap: 16 }}
      >
        <Text look="title">Hands</Text>
        <InputsPart />
      </ScrollView>
      <ScrollView style={{ flex: 1, minWidth: 0 }} contentContainerStyle={{ padding: 20, gap: 16 }}>
        {parts}
        {part === 'inputs' ? <NotesPart kit={kit} /> : shown}
      </ScrollView>
    </View>
  )
}

/** The practice controller here, or in a window of its own, so that other places are played from it. */
function PracticePart() {
  return (
    <View style={{ gap: 16, maxWidth: 560 }}>
      <Text tone="muted">It plays as a device would that is plugged in. In a window of its own it stays beside any place.</Text>
      <View style={{ flexDirection: 'row' }}>
        <Button label="Open it in a window" onPress={() => window.open('/practice', 'heliaster-practice', 'width=420,height=800')} />
      </View>
      <PracticeController />
    </View>
  )
}
