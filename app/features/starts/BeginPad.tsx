import { padSettings, padStartOf, startTillersOf, withStartTillers } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, PadStart, StartTiller } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { hearVersion } from '../../audio/engine/sound'
import { makeId } from '../../documents/make-id'
import { editKit } from '../../kit-view'
import { PadTile } from '../../kit-view/PadTile'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { notify } from '../../ui/layout/notices'
import { Part } from '../../ui/layout/Part'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { begunWith } from './begun-pads'
import { useStarts } from './use-starts'

interface Begun {
  readonly id: string
  readonly name: string
  readonly pad: PadStart
  readonly tillers: readonly StartTiller[]
}

function beginEdits(kit: Kit, pad: Pad, { pad: start, tillers }: Begun): KitEdit[] {
  const { own } = begunWith(pad, start)
  const gone = Object.keys(pad.own).filter((key) => !(key in own))
  const edits: KitEdit[] = [{ type: 'setPad', padId: pad.id, own, ...(gone.length > 0 ? { clear: gone as never } : {}) }]
  if (tillers.length === 0) return edits
  return [...edits, { type: 'setKit', fields: { tillers: withStartTillers(makeId, kit, tillers, [pad.id]) } }]
}

/** A pad's settings begun anew: with a start that was kept, or like a finished pad; heard before they are taken. */
export function BeginPad({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <>
      <Button label="Begin with a start" onPress={() => setOpen(true)} style={{ alignSelf: 'flex-start' }} />
      {isOpen && <BeginSheet kit={kit} pad={pad} onClose={() => setOpen(false)} />}
    </>
  )
}

function BeginSheet({ kit, pad, onClose }: { readonly kit: Kit; readonly pad: Pad; readonly onClose: () => void }) {
  const kept = useStarts('pad')
  const [chosen, setChosen] = useState<Begun>()
  const choose = (one: Begun) => {
    setChosen(one)
    hearVersion(begunWith(pad, one.pad))
  }
  const take = () => {
    if (!chosen) return
    editKit(kit.id, beginEdits(kit, pad, chosen), pad.id)
    notify(`${padSettings(kit, pad).name || 'The pad'} begins with “${chosen.name}”.`)
    onClose()
  }
  const others = kit.pads.filter(({ id }) => id !== pad.id)
  return (
    <Sheet
      title="Begin with a start"
      isOpen
      onClose={onClose}
      actions={<Button label={chosen ? `Begin with ${chosen.name}` : 'Choose a start'} kind="main" disabled={!chosen} onPress={take} />}
    >
      <Text look="small" tone="muted">
        All settings of this pad but its name, family, group and bus become those of the start. Its sounds stay.
      </Text>
      {kept.length > 0 && (
        <Chips
          label="Kept"
          options={kept.map(({ id, name }) => ({ value: id as string, text: name }))}
          value={chosen?.id}
          onChoose={(id) => {
            const start = kept.find((one) => one.id === id)
            if (start?.pad) choose({ id, name: start.name, pad: start.pad, tillers: start.tillers ?? [] })
          }}
        />
      )}
      {others.length > 0 && (
        <Part name="Like a pad of this kit">
          <View role="radiogroup" aria-label="Like a pad of this kit" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            {others.map((one) => (
              <PadTile
                key={one.id}
                kit={kit}
                pad={one}
                role="radio"
                isChosen={chosen?.id === one.id}
                size={52}
                onPress={() => choose({ id: one.id, name: padSettings(kit, one).name, pad: padStartOf(padSettings(kit, one)), tillers: startTillersOf(kit, one.id) })} // prettier-ignore
              />
            ))}
          </View>
        </Part>
      )}
      {chosen && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Button label="Hear it as it is" icon="play-outline" onPress={() => hearVersion(pad)} />
          <Button label="Hear it with the start" icon="play-outline" onPress={() => hearVersion(begunWith(pad, chosen.pad))} />
        </View>
      )}
    </Sheet>
  )
}
