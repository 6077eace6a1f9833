import { familiesAmong, familyWords, isOfFamily, padSettings } from '@heliaster/core/kit'
import type { Kit, Pad, PadId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Chips } from '../ui/controls/Chips'
import { SearchField } from '../ui/controls/SearchField'
import { PadTile } from './PadTile'
import { padName } from './use-kit'

interface Props {
  readonly kit: Kit
  readonly chosen: readonly PadId[]
  readonly onChoose: (ids: readonly PadId[]) => void
}

interface Rule {
  readonly value: string
  readonly text: string
  readonly holds: (pad: Pad) => boolean
}

/** Which pads are meant: tapped one by one, or all that a rule or a part of their names picks. */
export function PadChoices({ kit, chosen, onChoose }: Props) {
  const [words, setWords] = useState('')
  const rules = rulesOf(kit)
  const idsOf = (holds: (pad: Pad) => boolean) => kit.pads.filter(holds).map(({ id }) => id)
  const find = (typed: string) => {
    setWords(typed)
    const wanted = typed.trim().toLowerCase()
    onChoose(wanted === '' ? [] : idsOf((pad) => padName(kit, pad).toLowerCase().includes(wanted)))
  }
  const toggle = (id: PadId) => onChoose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id])
  return (
    <View style={{ gap: 10 }}>
      <Chips
        label="Choose"
        hideLabel
        options={rules}
        value={undefined}
        onChoose={(value) => onChoose(idsOf(rules.find((rule) => rule.value === value)!.holds))}
      />
      {kit.pads.length > 12 && <SearchField value={words} onChange={find} placeholder="Choose by name" />}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {kit.pads.map((pad) => (
          <PadTile
            key={pad.id}
            kit={kit}
            pad={pad}
            role="checkbox"
            isChosen={chosen.includes(pad.id)}
            size={44}
            onPress={() => toggle(pad.id)}
          />
        ))}
      </View>
    </View>
  )
}

/** All and none, then what groups, families and choke groups the kit has, and what is easily overlooked. */
function rulesOf(kit: Kit): Rule[] {
  const settings = new Map(kit.pads.map((pad) => [pad.id, padSettings(kit, pad)]))
  const distinct = (of: readonly (string | undefined)[]) => [...new Set(of)].filter((one) => one !== undefined).sort()
  const all = [...settings.values()]
  const rules: Rule[] = [
    { value: 'all', text: 'All', holds: () => true },
    { value: 'none', text: 'None', holds: () => false },
    ...distinct(all.map(({ group }) => group)).map((group) => ({
      value: `group ${group}`,
      text: group,
      holds: (pad: Pad) => settings.get(pad.id)?.group === group,
    })),
    ...familiesAmong(all.map(({ family }) => family)).map((family) => ({
      value: `family ${family}`,
      text: familyWords(family),
      holds: (pad: Pad) => isOfFamily(settings.get(pad.id)!.family, family),
    })),
    ...kit.ties.flatMap((tie) =>
      tie.kind === 'chokeGroup' ? [{ value: tie.id, text: `Choke: ${tie.name}`, holds: (pad: Pad) => tie.pads.includes(pad.id) }] : [],
    ),
    { value: 'empty', text: 'Empty', holds: (pad) => pad.bands.every((band) => band.turns.length === 0) },
    { value: 'muted', text: 'Muted', holds: (pad) => settings.get(pad.id)?.mute === true },
  ]
  return rules.filter(({ value, holds }) => value === 'none' || kit.pads.some(holds))
}
