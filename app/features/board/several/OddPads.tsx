import type { Kit, Pad, PadId } from '@heliaster/core/kit'
import { oddOnes } from '@heliaster/core/place'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { padName } from '../../../kit-view/use-kit'
import { settingsInWords } from './settings-in-words'

interface Props {
  readonly kit: Kit
  /** The pads that are compared. */
  readonly pads: readonly Pad[]
  readonly onChoose: (ids: readonly PadId[]) => void
}

/** The odd ones out: pads that differ in a setting that nearly all have alike, to be heard of before they are found by ear. */
export function OddPads({ kit, pads, onChoose }: Props) {
  const items = pads.map((pad) => ({ id: pad.id, name: padName(kit, pad), values: settingsInWords(kit, pad) }))
  const found = oddOnes(items)
  if (found.length === 0) return null
  return (
    <View style={{ gap: 4 }}>
      <Text look="label" tone="muted">
        Odd ones out
      </Text>
      {found.map(({ setting, common, count, odd }) => (
        <View key={setting} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Text look="small" style={{ flex: 1 }}>
            {`${setting}: ${common} in ${count}, but ${odd.map(({ name, values }) => `${name} ${values[setting]}`).join(', ')}.`}
          </Text>
          <Button label="Choose" onPress={() => onChoose(items.filter((item) => odd.includes(item)).map(({ id }) => id))} />
        </View>
      ))}
    </View>
  )
}
