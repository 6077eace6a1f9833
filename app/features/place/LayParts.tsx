import { clipOfSource } from '@heliaster/core/kit'
import type { Kit, Source } from '@heliaster/core/kit'
import { laidInParts } from '@heliaster/core/ties'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../documents/make-id'
import { editKit } from '../../kit-view'
import { session } from '../../kit-view/session'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { notify } from '../../ui/layout/notices'

const COUNTS = ['2', '4', '8', '16', '32'].map((value) => ({ value, text: value }))

interface Props {
  readonly kit: Kit
  readonly source: Source
  readonly onLaid: () => void
}

/** A loop lies in parts on as many new pads, even until someone draws them otherwise under Ties. */
export function LayParts({ kit, source, onLaid }: Props) {
  const [count, setCount] = useState('8')
  const lay = () => {
    const sound = { name: source.name, clip: clipOfSource(source), audio: source.audio, info: source.info }
    const { edits, pads } = laidInParts(makeId, kit, sound, Number(count))
    if (pads.length === 0) return notify('A kit holds 128 pads, and this one has no room for more. Remove some pads first.')
    editKit(kit.id, edits)
    session.setState({ padId: pads[0]!.id })
    const fewer = pads.length < Number(count) ? ', as many as there is room for' : ''
    notify(`“${source.name}” lies in ${pads.length} parts on pads of its own${fewer}. Draw them otherwise under Ties.`)
    onLaid()
    router.navigate(`/kit/${kit.id}/board`)
  }
  return (
    <View style={{ gap: 8 }}>
      <Chips label="Lay it in parts on pads of their own" options={COUNTS} value={count} onChoose={setCount} />
      <Button label={`Lay ${count} parts on new pads`} onPress={lay} />
    </View>
  )
}
