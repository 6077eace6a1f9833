import { Pressable, View } from 'react-native'

import { Text } from '../layout/Text'
import { TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  /** What it means, in a line under it. */
  readonly words?: string
  readonly value: boolean
  readonly onChange: (value: boolean) => void
}

/** Something that is on or off. */
export function Toggle({ label, words, value, onChange }: Props) {
  const palette = usePalette()
  return (
    <Pressable
      role="switch"
      aria-checked={value}
      aria-label={label}
      onPress={() => onChange(!value)}
      style={{ flexDirection: 'row', alignItems: 'center', minHeight: TOUCH, gap: 12 }}
    >
      <View style={{ flex: 1 }}>
        <Text look="strong" style={{ fontSize: 15 }}>
          {label}
        </Text>
        {words && (
          <Text look="small" tone="muted">
            {words}
          </Text>
        )}
      </View>
      <View
        style={{
          width: 46,
          height: 26,
          borderRadius: 13,
          borderWidth: 1,
          borderColor: value ? palette.kelp : palette.line,
          backgroundColor: value ? palette.kelp : palette.surface,
          justifyContent: 'center',
        }}
      >
        <View
          style={{
            width: 18,
            height: 18,
            borderRadius: 9,
            marginLeft: value ? 23 : 3,
            backgroundColor: value ? palette.onKelp : palette.muted,
          }}
        />
      </View>
    </Pressable>
  )
}
