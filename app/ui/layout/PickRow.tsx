// Our IconButton and Text, which render the elements, in a row of a long list, which draws thousands of them.
import type { ReactNode } from 'react'
import { Pressable, View } from 'react-native'

import { IconButton } from '../controls/Button'
import { usePalette } from '../theme/theme'
import { Text } from './Text'

interface Props {
  readonly name: string
  readonly facts: string
  /** What is wrong stands in the place of the facts. */
  readonly isWrong?: boolean
  readonly isPicked: boolean
  readonly onPick: () => void
  /** Whether it is heard now, where that can be ended. */
  readonly isHeard?: boolean
  readonly onHear: () => void
  /** In px. */
  readonly height: number
  /** Behind the words: what it looks like, and whether it is picked. */
  readonly children: ReactNode
}

/** One sound of several: heard by its sign, picked anywhere else. */
export function PickRow({ name, facts, isWrong, isPicked, onPick, isHeard = false, onHear, height, children }: Props) {
  const palette = usePalette()
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        height,
        borderBottomWidth: 1,
        borderBottomColor: palette.faint,
        backgroundColor: isHeard ? palette.waterWash : 'transparent',
      }}
    >
      <IconButton
        name={isHeard ? 'stop' : 'play-outline'}
        label={isHeard ? `Stop hearing ${name}` : `Hear ${name}`}
        on={isHeard}
        onPress={onHear}
      />
      <Pressable
        role="checkbox"
        aria-checked={isPicked}
        aria-label={name}
        onPress={onPick}
        style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, height: '100%', minWidth: 0 }}
      >
        <View style={{ flex: 1, minWidth: 0 }}>
          <Text look="small" numberOfLines={1} style={{ lineHeight: 18 }}>
            {name}
          </Text>
          <Text look="figures" tone={isWrong ? 'coral' : 'muted'} numberOfLines={isWrong ? 2 : 1} style={{ fontSize: 11, lineHeight: 13 }}>
            {facts}
          </Text>
        </View>
        {children}
      </Pressable>
    </View>
  )
}
