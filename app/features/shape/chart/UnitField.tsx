import { Pressable, View } from 'react-native'

import { numberIn } from '../../../ui/controls/Slider'
import { TypedField } from '../../../ui/controls/TypedField'
import { Text } from '../../../ui/layout/Text'
import { TOUCH } from '../../../ui/theme/theme'

interface Props<T extends string> {
  readonly label: string
  readonly text: string
  readonly unit: T
  readonly units: readonly T[]
  readonly onUnit: (unit: T) => void
  readonly onNumber: (value: number) => void
}

const SAID: Record<string, string> = { ct: 'cents', st: 'semitones' }
const said = (unit: string) => SAID[unit] ?? unit

/** A number that is typed, in a unit that a tap changes. */
export function UnitField<T extends string>({ label, text, unit, units, onUnit, onNumber }: Props<T>) {
  const take = (typed: string) => {
    const value = numberIn(typed)
    if (value !== undefined) onNumber(value)
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      <TypedField label={`${label}, ${said(unit)}`} text={text} inputMode="decimal" onText={take} />
      <UnitSign label={label} unit={unit} units={units} onUnit={onUnit} />
    </View>
  )
}

type SignProps<T extends string> = Pick<Props<T>, 'label' | 'unit' | 'units' | 'onUnit'>

/** The unit, which a tap changes for the next. */
export function UnitSign<T extends string>({ label, unit, units, onUnit }: SignProps<T>) {
  return (
    <Pressable
      role="button"
      aria-label={`${label} in ${said(unit)}; change the unit`}
      onPress={() => onUnit(units[(units.indexOf(unit) + 1) % units.length]!)}
      style={{ minWidth: TOUCH, minHeight: TOUCH, justifyContent: 'center', paddingHorizontal: 4 }}
    >
      <Text look="figures" tone="muted" style={{ textDecorationLine: 'underline', textDecorationStyle: 'dotted' }}>
        {unit}
      </Text>
    </Pressable>
  )
}
