import type { Kit, Pad, TieId } from '@heliaster/core/kit'
import { chokedBy } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { View } from 'react-native'

import { Chips } from '../../../../ui/controls/Chips'
import { NameField } from '../../../../ui/controls/NameField'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { editKit } from '../../../../kit-view'
import { kitGesture, padName } from '../../../../kit-view/use-kit'
import { chokeEdits } from '../../edits/pad-edits'

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
        onChoose={(choice) => editKit(kit.id, chokeEdits(kit, pad, choice as TieId | 'none' | 'new'), pad.id)}
      />
      {own && (
        <>
          <Text look="small" tone="muted">
            {silenced.length > 0
              ? `Silences ${silenced.map((other) => padName(kit, other)).join(', ')}.`
              : 'Alone in its group: put another pad in and they silence each other.'}
          </Text>
          <GroupSettings key={own.id} kit={kit} group={own} />
        </>
      )}
    </>
  )
}

const NO_LIMIT = 33

/** What holds for all pads of a choke group. */
function GroupSettings({ kit, group }: { readonly kit: Kit; readonly group: Extract<Kit['ties'][number], { kind: 'chokeGroup' }> }) {
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  const slide = (fields: Partial<typeof group>) => gesture.set([{ type: 'putTie', tie: { ...group, ...fields } }])
  const limit = (count: number) => {
    const { maxStrikes: _before, ...unlimited } = group
    gesture.set([{ type: 'putTie', tie: count >= NO_LIMIT ? unlimited : { ...group, maxStrikes: count } }])
  }
  return (
    <View style={{ paddingLeft: 12, gap: 10 }}>
      <NameField
        label="Name of the group"
        value={group.name}
        onName={(name) => editKit(kit.id, [{ type: 'putTie', tie: { ...group, name: name.trim().slice(0, 120) || group.name } }])}
      />
      <Slider
        label="Silences within"
        value={Math.round(group.fadeSeconds * 1000)}
        min={0}
        max={2000}
        step={1}
        power={3}
        unit="ms"
        onSlide={(ms) => slide({ fadeSeconds: ms / 1000 })}
        onDone={gesture.end}
      />
      <Slider
        label="Strikes at once in the group"
        value={group.maxStrikes ?? NO_LIMIT}
        min={1}
        max={NO_LIMIT}
        step={1}
        unit=""
        format={(count) => (count >= NO_LIMIT ? 'any' : String(count))}
        onSlide={limit}
        onDone={gesture.end}
      />
    </View>
  )
}
