import type { Kit, Pad } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { onNote } from '../audio/playing/hands/hands'
import { Button } from '../ui/controls/Button'
import { NameField } from '../ui/controls/NameField'
import { notify } from '../ui/layout/notices'
import { Text } from '../ui/layout/Text'
import { noteHz, notesInWords, notesOf, useNoteName } from './note-name'
import { editKit, padName } from './use-kit'

const MOST_SHOWN = 4

/** The notes that strike a pad: typed, or learnt from what is struck next. */
export function PadNotes({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const noteName = useNoteName()
  const [isLearning, setLearning] = useState(false)
  useEffect(() => {
    if (!isLearning) return undefined
    return onNote((note, input) => {
      setLearning(false)
      editKit(kit.id, [{ type: 'setPadNotes', padId: pad.id, notes: [note] }])
      notify(`${padName(kit, pad)} answers note ${note}, ${noteName(note)}, as ${input} sent it.`)
    })
  }, [isLearning, kit, pad, noteName])
  const setNotes = (typed: string) => {
    const notes = notesOf(typed)
    if (typeof notes === 'string') notify(notes)
    else editKit(kit.id, [{ type: 'setPadNotes', padId: pad.id, notes }])
  }
  return (
    <View style={{ gap: 8 }}>
      <NameField label="Notes that strike it" value={notesInWords(pad.notes)} placeholder="None: it answers no note" onName={setNotes} />
      <Text look="small" tone="muted" role="status">
        {isLearning
          ? 'Strike the key or pad of your input that is to play it.'
          : pad.notes.length === 0
            ? 'Notes are typed as numbers or names with commas between; C2..B3 is all from C2 to B3.'
            : pad.notes
                .slice(0, MOST_SHOWN)
                .map((note) => `${note}: ${noteName(note)}, ${noteHz(note, kit.tuningA4Hz).toFixed(1)} Hz`)
                .join('; ') + (pad.notes.length > MOST_SHOWN ? `; and ${pad.notes.length - MOST_SHOWN} more` : '')}
      </Text>
      <View style={{ flexDirection: 'row' }}>
        <Button label={isLearning ? 'Do not learn' : 'Learn its note'} onPress={() => setLearning(!isLearning)} />
      </View>
    </View>
  )
}
