// Made of our Chip: a group of them, which the elements leave to who uses them.
import { View } from 'react-native'

import { Chip } from './Chip'
import { Text } from '../layout/Text'

interface Props<T extends string> {
  readonly label: string
  readonly options: readonly { readonly value: T; readonly text: string }[]
  readonly values: readonly T[]
  readonly onToggle: (value: T) => void
}

/** Any of several: words on a line, those that are chosen on water. Beside Chips, of which one is chosen. */
export function CheckChips<T extends string>({ label, options, values, onToggle }: Props<T>) {
  return (
    <View role="group" aria-label={label} style={{ gap: 2 }}>
      <Text look="label" tone="muted">
        {label}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {options.map(({ value, text }) => (
          <Chip key={value} role="checkbox" text={text} isChosen={values.includes(value)} onPress={() => onToggle(value)} />
        ))}
      </View>
    </View>
  )
}
