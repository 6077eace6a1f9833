import { View } from 'react-native'

import { Text } from '../ui/layout/Text'

interface Props {
  /** What things are called and would be called. */
  readonly names: readonly { readonly id: string; readonly before: string; readonly after: string }[]
}

const SHOWN = 60

/** New names beside the old ones, before anything is changed. */
export function NamePreview({ names }: Props) {
  return (
    <View role="group" aria-label="The new names" style={{ gap: 4 }}>
      {names.slice(0, SHOWN).map(({ id, before, after }) => (
        <View key={id} style={{ flexDirection: 'row', gap: 10 }}>
          <Text look="small" tone="muted" numberOfLines={1} style={{ flex: 1 }}>
            {before}
          </Text>
          <Text look="small" numberOfLines={1} style={{ flex: 1 }}>
            {after}
          </Text>
        </View>
      ))}
      {names.length > SHOWN && <Text look="small" tone="muted">{`And ${names.length - SHOWN} more.`}</Text>}
    </View>
  )
}
