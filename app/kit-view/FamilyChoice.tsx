import { familyTyped } from '@heliaster/core/cut'
import { broadFamily, families, familyWords, kindsOfFamily } from '@heliaster/core/kit'
import type { Family } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Chips } from '../ui/controls/Chips'
import { NameField } from '../ui/controls/NameField'
import { Text } from '../ui/layout/Text'

interface Props {
  readonly label?: string
  /** Nothing where several are meant that differ. */
  readonly value: Family | undefined
  readonly onChoose: (family: Family) => void
}

const BROAD = families.filter((family) => broadFamily(family) === family)

/** What a drum is: its family, then which of that family where the trade tells them apart; or its word, typed. */
export function FamilyChoice({ label = 'Family', value, onChoose }: Props) {
  const [unknown, setUnknown] = useState<string>()
  const broad = value && broadFamily(value)
  const finer = value ? kindsOfFamily(broadFamily(value)) : []
  const take = (typed: string) => {
    const found = familyTyped(typed, families)
    setUnknown(found || !typed.trim() ? undefined : typed.trim())
    if (found) onChoose(found)
  }
  return (
    <View style={{ gap: 6 }}>
      <Chips label={label} options={BROAD.map(optionOf)} value={broad} onChoose={onChoose} />
      {finer.length > 0 && (
        <Chips
          label={`Which ${familyWords(broad!)}`}
          options={[{ value: broad!, text: 'not said' }, ...finer.map(optionOf)]}
          value={value}
          onChoose={onChoose}
        />
      )}
      <NameField
        label={`${label}, typed`}
        value={value ? familyWords(value) : ''}
        placeholder="open hat, floor tom, ride …"
        onName={take}
      />
      {unknown && (
        <Text look="small" tone="muted" role="status">
          “{unknown}” is no kind that is known here; it stays as it was. As a tag or a group any word can be kept.
        </Text>
      )}
    </View>
  )
}

const optionOf = (family: Family) => ({ value: family, text: familyWords(family) })
