import { Pressable, View } from 'react-native'

import { Text } from './Text'
import { TOUCH, usePalette } from './theme'

interface Props<T extends string> {
  readonly label: string
  readonly options: readonly { readonly value: T; readonly text: string }[]
  readonly values: readonly T[]
  readonly onToggle: (value: T) => void
}

/** Any of several: words on a line, those that are chosen on water. Beside Chips, of which one is chosen. */
export function CheckChips<T extends string>({ label, options, values, onToggle }: Props<T>) {
  const palette = usePalette()
  return (
    <View role="group" aria-label={label} style={{ gap: 2 }}>
      <Text look="label" tone="muted">
        {label}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {options.map(({ value, text }) => {
          const isChosen = values.includes(value)
          return (
            <Pressable
              key={value}
              role="checkbox"
              aria-checked={isChosen}
              onPress={() => onToggle(value)}
              style={{
                minHeight: TOUCH - 4,
                justifyContent: 'center',
                paddingHorizontal: 12,
                borderRadius: 6,
                borderWidth: 1,
                borderColor: isChosen ? palette.kelp : palette.line,
                backgroundColor: isChosen ? palette.kelpWash : 'transparent',
              }}
            >
              <Text look="label" tone={isChosen ? 'ink' : 'muted'}>
                {isChosen ? `✓ ${text}` : text}
              </Text>
            </Pressable>
          )
        })}
      </View>
    </View>
  )
}
