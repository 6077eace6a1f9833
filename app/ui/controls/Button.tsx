// Renders the elements' Button: with words, and as a sign alone (type clear).
import ElementsButton from '@rneui/themed/dist/Button'
import { View } from 'react-native'
import type { StyleProp, ViewStyle } from 'react-native'

import { Icon } from '../drawing/Icon'
import type { IconName } from '../drawing/Icon'
import { fonts, TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  readonly onPress: () => void
  /** `quiet` stands beside others in a bar. */
  readonly kind?: 'main' | 'plain' | 'coral' | 'quiet'
  readonly icon?: IconName
  readonly disabled?: boolean
  readonly busy?: boolean
  readonly style?: StyleProp<ViewStyle>
  readonly testID?: string
}

/** A button with words. One `main` on each screen; the others are plain. */
export function Button({ label, onPress, kind = 'plain', icon, disabled, busy, style, testID }: Props) {
  const palette = usePalette()
  const colors = { main: [palette.kelp, palette.onKelp], coral: [palette.coral, palette.onCoral], plain: ['transparent', palette.ink], quiet: ['transparent', palette.ink] }[kind] // prettier-ignore
  const isQuiet = kind === 'quiet'

  return (
    <ElementsButton
      title={label}
      onPress={onPress}
      disabled={disabled}
      loading={busy}
      loadingProps={{ color: colors[1], 'aria-label': 'At work' }}
      icon={icon ? <Icon name={icon} size={20} color={disabled ? palette.muted : colors[1]} /> : undefined}
      accessibilityLabel={label}
      testID={testID}
      titleStyle={{
        fontFamily: fonts.strong,
        fontSize: isQuiet ? 14 : 16,
        color: disabled ? palette.muted : colors[1],
        marginLeft: icon ? 8 : 0,
      }}
      disabledTitleStyle={{ color: palette.muted }}
      disabledStyle={
        isQuiet ? { backgroundColor: 'transparent', opacity: 0.6 } : { backgroundColor: palette.faint, borderColor: palette.faint }
      }
      buttonStyle={{
        minHeight: TOUCH,
        minWidth: TOUCH,
        borderRadius: 8,
        paddingHorizontal: isQuiet ? 9 : 14,
        backgroundColor: colors[0],
        borderWidth: kind === 'plain' ? 1 : 0,
        borderColor: palette.line,
      }}
      containerStyle={style}
    />
  )
}

interface IconButtonProps {
  readonly name: IconName
  readonly label: string
  readonly onPress: () => void
  readonly disabled?: boolean
  readonly on?: boolean
  readonly tone?: 'ink' | 'coral' | 'kelp' | 'muted'
  readonly testID?: string
}

/** A button of 44 px with a sign; its words are for those who cannot see it, and come where a mouse rests on it. */
export function IconButton({ name, label, onPress, disabled, on, tone = 'ink', testID }: IconButtonProps) {
  const palette = usePalette()
  return (
    <View {...{ dataSet: { sign: '' } }}>
      <ElementsButton
        type="clear"
        aria-label={label}
        aria-pressed={on}
        disabled={disabled}
        onPress={onPress}
        testID={testID}
        icon={<Icon name={name} size={22} color={palette[tone]} />}
        buttonStyle={{
          width: TOUCH,
          height: TOUCH,
          padding: 0,
          paddingHorizontal: 0,
          borderRadius: TOUCH / 2,
          backgroundColor: on ? palette.kelpWash : 'transparent',
          opacity: disabled ? 0.35 : 1,
        }}
        containerStyle={{ borderRadius: TOUCH / 2 }}
      />
    </View>
  )
}
