// Made of our Chip: a group of them, which the elements leave to who uses them.
import type { ReactNode } from 'react'
import { ScrollView, View } from 'react-native'

import { Chip } from './Chip'
import { Text } from '../layout/Text'

interface Props<T extends string> {
  readonly label: string
  /** Those of one group stand together under its name; many without groups tire the eye. */
  readonly options: readonly { readonly value: T; readonly text: string; readonly group?: string }[]
  readonly value: T | undefined
  readonly onChoose: (value: T) => void
  readonly hideLabel?: boolean
  /** All on one line, which is drawn sideways where it is too long. */
  readonly isOneLine?: boolean
}

/** One of a few: words on a line, the chosen one underlined by water. */
export function Chips<T extends string>({ label, options, value, onChoose, hideLabel, isOneLine }: Props<T>) {
  return (
    <View role="radiogroup" aria-label={label} style={{ gap: 2 }}>
      {!hideLabel && (
        <Text look="label" tone="muted">
          {label}
        </Text>
      )}
      {groupsOf(options).map(({ group, options: together }) => (
        <View key={group ?? ''} style={group ? { gap: 2, paddingTop: 4 } : undefined}>
          {group && (
            <Text look="small" tone="muted" style={{ fontSize: 12, lineHeight: 15 }}>
              {group}
            </Text>
          )}
          <Line isOne={isOneLine === true}>
            {together.map(({ value: own, text }) => (
              <Chip key={own} role="radio" text={text} isChosen={own === value} onPress={() => onChoose(own)} />
            ))}
          </Line>
        </View>
      ))}
    </View>
  )
}

/** Options by their groups, in the order in which those come first. */
function groupsOf<Option extends { readonly group?: string }>(options: readonly Option[]): { group?: string; options: Option[] }[] {
  const groups = new Map<string | undefined, Option[]>()
  for (const option of options) groups.set(option.group, [...(groups.get(option.group) ?? []), option])
  return [...groups].map(([group, together]) => ({ group, options: together }))
}

function Line({ isOne, children }: { readonly isOne: boolean; readonly children: ReactNode }) {
  if (!isOne) return <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>{children}</View>
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={{ gap: 6 }}>
      {children}
    </ScrollView>
  )
}
