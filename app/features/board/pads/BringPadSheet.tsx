import { applyBatch, kitKind } from '@heliaster/core/kit'
import type { Kit, Pad, PadId } from '@heliaster/core/kit'
import { bringPad } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'

import { hearVersion } from '../../../audio/engine/sound'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { OtherKit, useOtherKit } from '../../../kit-view/OtherKit'
import { PadTile } from '../../../kit-view/PadTile'
import { session } from '../../../kit-view/session'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { notify } from '../../../ui/layout/notices'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly onClose: () => void
}

/** A pad of another kit, heard first, and brought here with all it needs. */
export function BringPadSheet({ kit, onClose }: Props) {
  const [padId, setPadId] = useState<PadId>()
  const other = useOtherKit(kit, () => setPadId(undefined))
  const from = other.kit
  const pad = from?.pads.find(({ id }) => id === padId)
  const bring = () => {
    const made = from && pad && bringPad(makeId, kit, from, pad.id)
    if (!made) return notify('This kit holds 128 pads, as many as it can: remove one first.')
    editKit(kit.id, made.edits, made.padId)
    session.setState({ padId: made.padId })
    const along = made.along.length > 0 ? `, with ${made.along.join(' and ')}` : ''
    notify(`${padName(from, pad)} of ${from.name} is here now${along}.`)
    onClose()
  }
  const choose = (one: Pad) => {
    setPadId(one.id)
    const made = from && bringPad(makeId, kit, from, one.id)
    const there = made && applyBatch(kitKind, kit, made.edits).doc.pads.find(({ id }) => id === made.padId)
    if (there) hearVersion(there)
  }
  return (
    <Sheet
      title="A pad of another kit"
      isOpen
      onClose={onClose}
      actions={<Button label={pad && from ? `Bring ${padName(from, pad)} here` : 'Choose a pad'} kind="main" disabled={!pad} onPress={bring} style={{ flex: 1 }} />} // prettier-ignore
    >
      <OtherKit {...other} />
      {from && from.pads.length === 0 && <Text tone="muted">It has no pads.</Text>}
      {from && <Pads kit={from} chosen={padId} onChoose={choose} />}
    </Sheet>
  )
}

function Pads({ kit, chosen, onChoose }: { readonly kit: Kit; readonly chosen: PadId | undefined; readonly onChoose: (pad: Pad) => void }) {
  return (
    <View role="radiogroup" aria-label={`Pads of ${kit.name}`} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {kit.pads.map((pad) => (
        <PadTile key={pad.id} kit={kit} pad={pad} role="radio" isChosen={pad.id === chosen} size={60} onPress={() => onChoose(pad)} />
      ))}
    </View>
  )
}
