// Renders the elements' Switch.
import Switch from '@rneui/themed/dist/Switch'
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

/** The switch answers its own click; the row round it must not answer the same one. */
const alone = { onClick: (event: { stopPropagation(): void }) => event.stopPropagation() }

/** Something that is on or off. All of its row presses it. */
export function Toggle({ label, words, value, onChange }: Props) {
  const palette = usePalette()
  // Colours of the switch as the web draws it; the package's types know those of telephones.
  const colours = {
    activeThumbColor: palette.kelp,
    activeTrackColor: palette.kelpWash,
    thumbColor: palette.muted,
    trackColor: { true: palette.kelpWash, false: palette.faint },
  }
  return (
    <Pressable
      tabIndex={-1}
      {...{ dataSet: { reach: '' } }}
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
      <View {...alone}>
        <Switch aria-label={label} value={value} onValueChange={onChange} style={{ height: 24 }} {...colours} />
      </View>
    </Pressable>
  )
}
