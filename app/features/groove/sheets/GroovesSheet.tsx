import { cleared, copyOfGroove, createGroove, freeGrooveName, grooveMoved } from '@heliaster/core/groove'
import type { Groove, GrooveId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { chooseGroove } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NameField } from '../../../ui/controls/NameField'
import { Sheet } from '../../../ui/layout/Sheet'
import type { BeadHands } from '../hands/use-bead-hands'
import { SongPart } from './SongPart'

interface Props {
  readonly hands: BeadHands
  readonly onClose: () => void
  readonly onReady: () => void
  readonly onBring: () => void
  readonly onRhythm: () => void
}

/** The kit's grooves: which is seen, new ones, copies, their order, and the song that they make. */
export function GroovesSheet({ hands, onClose, onReady, onBring, onRhythm }: Props) {
  const { kit, groove } = hands
  const [isNaming, setNaming] = useState(false)
  const place = kit.grooves.findIndex(({ id }) => id === groove.id)
  const isKept = place >= 0
  const add = (more: Groove) => {
    editKit(kit.id, [{ type: 'putGroove', groove: more, index: place + 1 }])
    chooseGroove(more.id)
  }
  const fresh = () => add({ ...createGroove(makeId, freeGrooveName(kit, 'Groove 1')), lengthSteps: groove.lengthSteps, stepsPerBeat: groove.stepsPerBeat, swing: groove.swing })
  const copy = () => add(copyOfGroove(makeId, groove, freeGrooveName(kit, groove.name || 'Groove')))
  const remove = () => {
    editKit(kit.id, [{ type: 'removeGroove', grooveId: groove.id }])
    const next = kit.grooves[place + 1] ?? kit.grooves[place - 1]
    if (next) chooseGroove(next.id)
  }
  const move = (way: number) => editKit(kit.id, grooveMoved(kit, groove, place + way))
  const rename = (name: string) => {
    if (name.trim()) hands.edit({ ...groove, name: name.trim().slice(0, 120) })
    setNaming(false)
  }
  return (
    <Sheet title="Grooves" isOpen onClose={onClose}>
      {kit.grooves.length > 0 && (
        <Chips
          label="Groove"
          hideLabel
          options={kit.grooves.map(({ id, name }, i) => ({ value: id as string, text: name || `Groove ${i + 1}` }))}
          value={groove.id as string}
          onChoose={(id) => chooseGroove(id as GrooveId)}
        />
      )}
      {isKept && isNaming && <NameField label="Name" value={groove.name} onName={rename} autoFocus />}
      {isKept && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 }}>
          <Button label="Rename" icon="form-textbox" onPress={() => setNaming(!isNaming)} />
          <Button label="Copy" icon="content-copy" onPress={copy} />
          <Button label="Clear" disabled={groove.strings.every(({ beads }) => beads.length === 0)} onPress={() => hands.edit(cleared(groove), new Set())} />
          <Button label="Delete" icon="trash-can-outline" onPress={remove} />
          <IconButton name="arrow-left" label="Earlier in the list" disabled={place <= 0} onPress={() => move(-1)} />
          <IconButton name="arrow-right" label="Later in the list" disabled={place === kit.grooves.length - 1} onPress={() => move(1)} />
        </View>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="New" icon="plus" onPress={fresh} />
        <Button label="Ready grooves" icon="playlist-play" disabled={kit.pads.length === 0} onPress={onReady} />
        <Button label="Bring a groove" icon="import" disabled={kit.pads.length === 0} onPress={onBring} />
        <Button label="From a rhythm" icon="record-circle-outline" onPress={onRhythm} />
      </View>
      {kit.grooves.length > 0 && <SongPart hands={hands} />}
    </Sheet>
  )
} // prettier-ignore
