// Renders the elements' CheckBox.
import CheckBox from '@rneui/themed/dist/CheckBox'

import { Icon } from '../drawing/Icon'
import { TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  readonly value: boolean
  /** With whether it ends a range: Shift is held. */
  readonly onChange: (value: boolean, isRange: boolean) => void
}

/** A box of 44 px that is ticked or not; what it ticks stands beside it. */
export function Check({ label, value, onChange }: Props) {
  const palette = usePalette()
  return (
    <CheckBox
      aria-label={label}
      aria-checked={value}
      checked={value}
      onPress={(event) => onChange(!value, (event.nativeEvent as { shiftKey?: boolean }).shiftKey === true)}
      checkedIcon={<Icon name="checkbox-marked" size={22} color={palette.kelp} />}
      uncheckedIcon={<Icon name="checkbox-blank-outline" size={22} color={palette.muted} />}
      containerStyle={{
        width: TOUCH,
        height: TOUCH,
        margin: 0,
        marginLeft: 0,
        marginRight: 0,
        padding: 0,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: 'transparent',
      }}
    />
  )
}
