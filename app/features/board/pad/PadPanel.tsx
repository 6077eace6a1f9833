import { padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { memo, useDeferredValue, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { missingAudio } from '../../../audio/files/audio-files'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NameField } from '../../../ui/controls/NameField'
import { useNoteName } from '../../../kit-view/note-name'
import { NumberField } from '../../../ui/controls/Slider'
import { notify } from '../../../ui/layout/notices'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { editKit } from '../../../kit-view'
import { session, useSession } from '../../../kit-view/session'
import type { PadPart } from '../../../kit-view/session'
import { StrikeAt, TestStrikes } from '../../../kit-view/TestStrikes'
import { describeMissing } from '../../../kit-view/describe-pad'
import { duplicateEdits } from '../edits/pad-edits'
import { PadsSheet } from '../several/PadsSheet'
import { PadCells } from './cells/PadCells'
import { DrumPart } from './drum/DrumPart'
import { PadLevel } from './playing/PadLevel'
import { PadPlaying } from './playing/PadPlaying'
import { RaysPanel } from './rays/RaysPanel'
import { TakeApart } from './TakeApart'

/** What one part of a pad's settings shows. */
const ShownPart = memo(function ShownPart({ kit, pad, part }: { readonly kit: Kit; readonly pad: Pad; readonly part: PadPart }) {
  if (part === 'cells') return <PadCells kit={kit} pad={pad} />
  if (part === 'playing') return <PadPlaying kit={kit} pad={pad} />
  if (part === 'level') return <PadLevel kit={kit} pad={pad} />
  if (part === 'drum') return <DrumPart kit={kit} pad={pad} />
  return <RaysPanel kit={kit} pad={pad} />
})

interface PanelProps {
  readonly kit: Kit
  readonly pad: Pad
  /** Its name and its parts alone, while a large kit is opened: what they show comes right after. */
  readonly isHead?: boolean
}

/** One pad: what fills it first, then how it plays, how loud, and what sounds together. All changes are of this pad alone. */
export const PadPanel = memo(function PadPanel({ kit, pad, isHead }: PanelProps) {
  const noteName = useNoteName()
  const isWide = useIsWide() // on a phone they are in the head of the sheet
  const part = useSession(({ padPart }) => padPart)
  const shown = useDeferredValue(part) // the word is marked first, what it shows comes right after
  const missing = useStore(missingAudio, (state) => describeMissing(pad, state))
  const [isEditingGroup, setEditingGroup] = useState(false)
  const settings = padSettings(kit, pad)
  const gathered = settings.group ? kit.pads.filter((one) => padSettings(kit, one).group === settings.group).map(({ id }) => id) : []
  const edit = (...edits: KitEdit[]) => editKit(kit.id, edits, pad.id)
  const duplicate = () => {
    const made = duplicateEdits(kit, pad)
    editKit(kit.id, made.edits, made.copy.id)
    session.setState({ padId: made.copy.id }) // what is done next is done to the copy
  }
  const setNote = (typed: number) => {
    const note = Math.min(127, Math.max(0, Math.round(typed)))
    if (note !== typed) notify(`Notes are whole numbers from 0 to 127: the pad answers ${note}, ${noteName(note)}.`)
    edit({ type: 'setPadNotes', padId: pad.id, notes: [note, ...pad.notes.slice(1)] })
  }
  const place = kit.pads.indexOf(pad)
  const move = (index: number) => editKit(kit.id, [{ type: 'movePad', padId: pad.id, index }])
  const parts = [
    { value: 'cells', text: 'Cells' },
    { value: 'playing', text: 'Playing' },
    { value: 'level', text: 'Level' },
    { value: 'rays', text: pad.rays.length === 1 ? 'Rays' : `${pad.rays.length} rays` },
    { value: 'drum', text: 'Drum' },
  ] as const
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 16, alignItems: 'stretch' }}>
        <View style={{ flex: 1 }}>
          <NameField
            label="Name"
            value={settings.name}
            placeholder="Unnamed pad"
            onName={(name) => edit({ type: 'setPad', padId: pad.id, own: { name: name.trim().slice(0, 120) } })}
          />
        </View>
        <View style={{ justifyContent: 'space-between' }}>
          <Text look="label" tone="muted">
            Note
          </Text>
          <NumberField
            label="MIDI note"
            text={pad.notes.length > 0 ? String(pad.notes[0]) : ''}
            unit={pad.notes.length > 0 ? noteName(pad.notes[0]) : 'none'}
            onNumber={setNote}
          />
        </View>
      </View>
      {missing && (
        <Text look="small" tone="coral" role="alert">
          {missing}
        </Text>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', justifyContent: 'space-between' }}>
        <Chips<PadPart> label="Of this pad" hideLabel options={parts} value={part} onChoose={(padPart) => session.setState({ padPart })} />
        <View style={{ flexDirection: 'row', alignItems: 'center' }}>
          {isWide && <TestStrikes padId={pad.id} />}
          <StrikeAt padId={pad.id} />
        </View>
      </View>
      {!isHead && (
        <>
          <ShownPart kit={kit} pad={pad} part={shown} />
          <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center', flexWrap: 'wrap' }}>
            <IconButton name="arrow-left" label="Move the pad forward" disabled={place <= 0} onPress={() => move(place - 1)} />
            <IconButton
              name="arrow-right"
              label="Move the pad back"
              disabled={place >= kit.pads.length - 1}
              onPress={() => move(place + 1)}
            />
            <Button label="Duplicate" onPress={duplicate} />
            <TakeApart kit={kit} pad={pad} />
            <Button
              label="Clear"
              disabled={pad.bands.length === 0}
              onPress={() => edit({ type: 'setPadFilling', padId: pad.id, bands: [] })}
            />
            <Button label="Remove pad" onPress={() => editKit(kit.id, [{ type: 'removePad', padId: pad.id }])} />
            {gathered.length > 1 && <Button label={`Edit all of ${settings.group}`} onPress={() => setEditingGroup(true)} />}
          </View>
        </>
      )}
      {isEditingGroup && <PadsSheet kit={kit} chosen={gathered} onClose={() => setEditingGroup(false)} />}
    </>
  )
})
