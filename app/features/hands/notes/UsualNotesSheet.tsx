import { usualNotes } from '@heliaster/core/hands'
import type { UsualNote } from '@heliaster/core/hands'
import type { Kit, PadId } from '@heliaster/core/kit'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { notesInWords, useNoteName } from '../../../kit-view/note-name'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Row } from '../../../ui/layout/Row'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly onClose: () => void
}

/** Which pad would answer which note, and what stands in the way, before anything changes. */
export function UsualNotesSheet({ kit, onClose }: Props) {
  const noteName = useNoteName()
  const proposed = usualNotes(kit)
  const padOf = (id: PadId) => kit.pads.find((pad) => pad.id === id)!
  const nameOf = (id: PadId) => padName(kit, padOf(id))
  const changed = proposed.notes.filter(({ padId, note }) => padOf(padId).notes.length !== 1 || padOf(padId).notes[0] !== note)
  const use = () => {
    editKit(kit.id, changed.map(({ padId, note }) => ({ type: 'setPadNotes', padId, notes: [note] }))) // prettier-ignore
    onClose()
  }
  const conflicts = [
    ...proposed.crowded.map(({ padId, by }) => `${nameOf(padId)}: no note of its family is left, ${by.map(nameOf).join(', ')} have them.`),
    ...proposed.fewer.map((padId) => `${nameOf(padId)} answers ${padOf(padId).notes.length} notes now, and would keep one.`),
  ]
  return (
    <Sheet
      title="Usual notes"
      isOpen
      onClose={onClose}
      actions={
        <Button
          kind="main"
          label={changed.length === 0 ? 'All as usual' : 'Use these notes'}
          disabled={changed.length === 0}
          onPress={use}
        />
      }
    >
      <Text tone="muted">Each pad goes where players and programs look for its family, as General MIDI has it.</Text>
      {conflicts.length > 0 && (
        <View role="alert" style={{ gap: 4 }}>
          {conflicts.map((words) => (
            <Text key={words} look="small">
              {words}
            </Text>
          ))}
        </View>
      )}
      <View role="list" tabIndex={0} aria-label="Pads and their notes">
        {proposed.notes.map((one) => (
          <NoteLine key={one.padId} one={one} name={nameOf(one.padId)} before={notesInWords(padOf(one.padId).notes)} noteName={noteName} />
        ))}
      </View>
    </Sheet>
  )
}

interface LineProps {
  readonly one: UsualNote
  readonly name: string
  readonly before: string
  readonly noteName: (note: number) => string
}

function NoteLine({ one: { note, words }, name, before, noteName }: LineProps) {
  const isSame = before === noteName(note)
  return (
    <Row>
      <View style={{ flex: 1 }}>
        <Text look="strong">{name}</Text>
        <Text look="small" tone="muted">
          {words ?? 'a note of no family'}
        </Text>
      </View>
      <Text look="figures" tone={isSame ? 'muted' : 'ink'}>
        {isSame ? noteName(note) : `${before || 'none'} → ${noteName(note)}`}
      </Text>
    </Row>
  )
}
