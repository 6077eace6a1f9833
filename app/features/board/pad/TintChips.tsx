import { tints } from '@heliaster/core/kit'
import type { Tint } from '@heliaster/core/kit'
import { Pressable, View } from 'react-native'

import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly label: string
  readonly value: Tint | 'mixed' | undefined
  readonly onTint: (tint: Tint | undefined) => void
}

/** The colour a pad is marked with, told by its name besides. */
export function TintChips({ label, value, onTint }: Props) {
  const palette = usePalette()
  return (
    <View role="radiogroup" aria-label={label} style={{ gap: 2 }}>
      <Text look="label" tone="muted">
        {label}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {[undefined, ...tints].map((tint) => (
          <Pressable
            key={tint ?? 'kelp'}
            role="radio"
            aria-checked={tint === value}
            onPress={() => onTint(tint)}
            style={{
              minHeight: TOUCH,
              flexDirection: 'row',
              alignItems: 'center',
              gap: 8,
              paddingHorizontal: 12,
              borderRadius: 6,
              borderWidth: 1,
              borderColor: tint === value ? palette.kelp : palette.line,
              backgroundColor: tint === value ? palette.kelpWash : 'transparent',
            }}
          >
            <View style={{ width: 14, height: 14, borderRadius: 7, backgroundColor: tint ? palette.tints[tint] : palette.kelp }} />
            <Text look="label" tone={tint === value ? 'ink' : 'muted'}>
              {tint ?? 'kelp'}
            </Text>
          </Pressable>
        ))}
      </View>
    </View>
  )
}
