import { padById } from '@heliaster/core/kit'
import type { Clearable, Kit, Pad, PadId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { editKit } from '../../../../kit-view'
import { padName } from '../../../../kit-view/use-kit'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { Part } from '../../../../ui/layout/Part'
import { Row } from '../../../../ui/layout/Row'
import { Sheet } from '../../../../ui/layout/Sheet'
import { Text } from '../../../../ui/layout/Text'
import { ownSettings } from './own-settings'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
}

/** The pad whose settings this one takes; what is its own is listed, and one tap back. */
export function LeansOn({ kit, pad }: Props) {
  const [isChoosing, setChoosing] = useState(false)
  const leader = pad.leansOn && padById(kit, pad.leansOn)
  const lead = (leansOn: PadId | null) => editKit(kit.id, [{ type: 'setPadLeader', padId: pad.id, leansOn }], pad.id)
  const back = (names: readonly Clearable[]) => editKit(kit.id, [{ type: 'setPad', padId: pad.id, own: {}, clear: [...names] }], pad.id)
  const own = ownSettings(pad)
  const all = own.flatMap(({ names }) => names)
  return (
    <Part name="Leans on">
      <Text look="small" tone="muted">
        {leader
          ? `It follows ${padName(kit, leader)} in everything that is not its own.`
          : 'On no pad: everything set here is its own. A pad that leans on another follows it in all that is not set here.'}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label={leader ? 'Another pad' : 'Lean on a pad'} disabled={kit.pads.length < 2} onPress={() => setChoosing(true)} />
        {leader && <Button label="Stand alone" onPress={() => lead(null)} />}
      </View>
      {leader && own.length > 0 && (
        <View role="list" aria-label="Its own">
          {own.map(({ words, value, names }, i) => (
            <Row key={words} hasLine={i > 0}>
              <View style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 10 }}>
                <Text look="small" style={{ flex: 1 }}>
                  {words}
                </Text>
                <Text look="figures" tone="muted">
                  {value}
                </Text>
                <Button kind="quiet" label={`Take back ${words.toLowerCase()}`} onPress={() => back(names)} />
              </View>
            </Row>
          ))}
          {own.length > 1 && <Button label="Take all back" onPress={() => back(all)} style={{ alignSelf: 'flex-start', marginTop: 6 }} />}
        </View>
      )}
      {leader && own.length === 0 && <Text look="small">Nothing is its own but its name.</Text>}
      {isChoosing && (
        <Sheet title={`What ${padName(kit, pad)} leans on`} isOpen onClose={() => setChoosing(false)}>
          <Chips
            label="Pad"
            hideLabel
            options={kit.pads.filter((one) => one !== pad && !leansAlready(kit, one, pad.id)).map((one) => ({ value: one.id as string, text: padName(kit, one) }))} // prettier-ignore
            value={pad.leansOn as string | undefined}
            onChoose={(padId) => {
              lead(padId as PadId)
              setChoosing(false)
            }}
          />
        </Sheet>
      )}
    </Part>
  )
}

/** Whether a pad leans on another one, by however many others. */
function leansAlready(kit: Kit, pad: Pad, on: PadId): boolean {
  for (let at: Pad | undefined = pad, steps = 0; at?.leansOn && steps < 128; at = padById(kit, at.leansOn), steps++) if (at.leansOn === on) return true // prettier-ignore
  return false
}
