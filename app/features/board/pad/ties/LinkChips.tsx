import type { Kit, Pad, PadId, Tie } from '@heliaster/core/kit'
import { tieOfPad, tieWords, toggledTie } from '@heliaster/core/ties'
import type { LineKind } from '@heliaster/core/ties'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../../documents/make-id'
import { Button } from '../../../../ui/controls/Button'
import { CheckChips } from '../../../../ui/controls/CheckChips'
import { Text } from '../../../../ui/layout/Text'
import { editKit } from '../../../../kit-view'
import { padName } from '../../../../kit-view/use-kit'
import { TieSettings } from '../../ties/TieSettings'

/** Pads that answer with this one: struck along, in turns, or opened by a controller; each said as it is played. */
export function LinkChips({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const others = kit.pads.filter(({ id }) => id !== pad.id).map((other) => ({ value: other.id, text: padName(kit, other) }))
  if (others.length === 0) return null
  const along = tieOfPad(kit, 'alsoStrike', pad.id)
  const turns = tieOfPad(kit, 'takeTurns', pad.id)
  const openings = tieOfPad(kit, 'openings', pad.id)
  const toggle = (kind: LineKind) => (other: PadId) => editKit(kit.id, toggledTie(makeId, kit, kind, pad.id, other), pad.id)
  return (
    <>
      <CheckChips label="Strikes along" options={others} values={along?.to.map((to) => to.pad) ?? []} onToggle={toggle('alsoStrike')} />
      {along && <Details kit={kit} tie={along} />}
      <CheckChips label="Takes turns with" options={others} values={turns?.pads ?? []} onToggle={toggle('takeTurns')} />
      {turns && <Details kit={kit} tie={turns} />}
      <CheckChips
        label="Opens by a controller to"
        options={others}
        values={openings?.steps.map((step) => step.pad) ?? []}
        onToggle={toggle('openings')}
      />
      {openings && <Details kit={kit} tie={openings} />}
    </>
  )
}

/** What is set on a tie is folded away until it is asked for; what it does is said. */
function Details({ kit, tie }: { readonly kit: Kit; readonly tie: Tie }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <View style={{ paddingLeft: 12, gap: 8 }}>
      <Text look="small" tone="muted">
        {tieWords(kit, tie)}
      </Text>
      <Button kind="quiet" label={isOpen ? 'Less' : 'Set it'} onPress={() => setOpen(!isOpen)} />
      {isOpen && <TieSettings kit={kit} tie={tie} />}
    </View>
  )
}
