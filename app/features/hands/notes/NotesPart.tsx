import type { Kit } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { chooseMiddleC, middleC } from '../../../kit-view/note-name'
import type { MiddleC } from '../../../kit-view/note-name'
import { PadNotes } from '../../../kit-view/PadNotes'
import { padName, useChosenPad } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'
import { NoteRow } from './NoteRow'
import { UsualNotesSheet } from './UsualNotesSheet'

/** All notes to play on, and which pads they strike. */
export function NotesPart({ kit }: { readonly kit: Kit }) {
  const chosen = useChosenPad()
  const hasCounted = useStore(handSettings, (state) => state.hasCounted)
  const [isUsual, setUsual] = useState(false)
  return (
    <View style={{ gap: 16 }}>
      {!hasCounted && (
        <Text>
          Programs count octaves differently. Choose once what you call middle C; the name of every note follows, its number stays 60.
        </Text>
      )}
      {!hasCounted && <OctaveChips />}
      <NoteRow kit={kit} />
      {chosen && (
        <Part name={padName(kit, chosen.pad)}>
          <PadNotes key={chosen.pad.id} kit={kit} pad={chosen.pad} />
        </Part>
      )}
      {hasCounted && <OctaveChips />}
      <View style={{ flexDirection: 'row' }}>
        <Button label="Usual notes for all pads" disabled={kit.pads.length === 0} onPress={() => setUsual(true)} />
      </View>
      {isUsual && <UsualNotesSheet kit={kit} onClose={() => setUsual(false)} />}
    </View>
  )
}

function OctaveChips() {
  const octave = useStore(middleC, (state) => state.octave)
  const hasCounted = useStore(handSettings, (state) => state.hasCounted)
  return (
    <Chips
      label="Middle C, note 60, is called"
      options={(['3', '4', '5'] as const).map((value) => ({ value, text: `C${value}` }))}
      value={hasCounted ? (`${octave}` as '3' | '4' | '5') : undefined}
      onChoose={(value) => {
        chooseMiddleC(Number(value) as MiddleC)
        handSettings.setState({ hasCounted: true })
      }}
    />
  )
}
