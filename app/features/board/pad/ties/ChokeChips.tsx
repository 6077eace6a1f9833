import type { Kit, Pad, TieId } from '@heliaster/core/kit'
import { chokedBy } from '@heliaster/core/kit'
import { inChokeGroup } from '@heliaster/core/ties'
import { View } from 'react-native'

import { makeId } from '../../../../documents/make-id'
import { Chips } from '../../../../ui/controls/Chips'
import { Text } from '../../../../ui/layout/Text'
import { editKit } from '../../../../kit-view'
import { padName } from '../../../../kit-view/use-kit'
import { ChokeGroupSettings } from '../../ties/settings/ChokeSettings'

/** Pads of one choke group silence each other. */
export function ChokeChips({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const groups = kit.ties.flatMap((tie) => (tie.kind === 'chokeGroup' ? [tie] : []))
  const own = groups.find((group) => group.pads.includes(pad.id))
  const options = [
    { value: 'none', text: 'None' },
    ...groups.map((group) => ({ value: group.id as string, text: group.name })),
    ...(own?.pads.length === 1 ? [] : [{ value: 'new', text: 'New group' }]),
  ]
  const silenced = chokedBy(kit, pad.id).flatMap((tie) => kit.pads.filter((other) => other.id === tie.padId))
  return (
    <>
      <Chips
        label="Choke group"
        options={options}
        value={own?.id ?? 'none'}
        onChoose={(choice) => editKit(kit.id, inChokeGroup(makeId, kit, pad.id, choice as TieId | 'none' | 'new'), pad.id)}
      />
      {own && (
        <>
          <Text look="small" tone="muted">
            {silenced.length > 0
              ? `Silences ${silenced.map((other) => padName(kit, other)).join(', ')}.`
              : 'Alone in its group: put another pad in and they silence each other.'}
          </Text>
          <View key={own.id} style={{ paddingLeft: 12, gap: 10 }}>
            <ChokeGroupSettings kit={kit} tie={own} />
          </View>
        </>
      )}
    </>
  )
}
