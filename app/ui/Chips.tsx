import type { ReactNode } from 'react'
import { Pressable, ScrollView, View } from 'react-native'

import { Text } from './Text'
import { TOUCH, usePalette } from './theme'

interface Props<T extends string> {
  readonly label: string
  readonly options: readonly { readonly value: T; readonly text: string }[]
  readonly value: T | undefined
  readonly onChoose: (value: T) => void
  readonly hideLabel?: boolean
  /** All on one line, which is drawn sideways where it is too long. */
  readonly isOneLine?: boolean
}

/** One of a few: words on a line, the chosen one underlined by water. */
export function Chips<T extends string>({ label, options, value, onChoose, hideLabel, isOneLine }: Props<T>) {
  const palette = usePalette()
  return (
    <View role="radiogroup" aria-label={label} style={{ gap: 2 }}>
      {!hideLabel && (
        <Text look="label" tone="muted">
          {label}
        </Text>
      )}
      <Line isOne={isOneLine === true}>
        {options.map((option) => {
          const chosen = option.value === value
          return (
            <Pressable
              key={option.value}
              role="radio"
              aria-checked={chosen}
              onPress={() => onChoose(option.value)}
              style={{
                minHeight: TOUCH - 4,
                justifyContent: 'center',
                paddingHorizontal: 12,
                borderRadius: 6,
                borderWidth: 1,
                borderColor: chosen ? palette.kelp : palette.line,
                backgroundColor: chosen ? palette.kelpWash : 'transparent',
              }}
            >
              <Text look="label" tone={chosen ? 'ink' : 'muted'}>
                {option.text}
              </Text>
            </Pressable>
          )
        })}
      </Line>
    </View>
  )
}

function Line({ isOne, children }: { readonly isOne: boolean; readonly children: ReactNode }) {
  if (!isOne) return <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>{children}</View>
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={{ gap: 6 }}>
      {children}
    </ScrollView>
  )
}
