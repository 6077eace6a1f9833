import type { Kit, KitId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Chips } from '../ui/controls/Chips'
import { SearchField } from '../ui/controls/SearchField'
import { Text } from '../ui/layout/Text'
import { isMeant } from './is-meant'
import type { KitToChoose } from './use-other-kits'

/** More kits than this are found by their names; those that changed last are offered at once. */
const MOST = 12

interface Props {
  readonly label: string
  /** By their names. */
  readonly kits: readonly KitToChoose[]
  readonly id: KitId | undefined
  /** The kit of that id, once it is here. */
  readonly kit: Kit | undefined
  readonly onChoose: (id: KitId) => void
}

/** One of all kits, few or hundreds; one that only the server has comes. */
export function KitChoices({ label, kits, id, kit, onChoose }: Props) {
  const [words, setWords] = useState('')
  const { shown, more } = kitsToShow(kits, words, id)
  return (
    <View style={{ gap: 6 }}>
      {kits.length > MOST && <SearchField value={words} onChange={setWords} placeholder="Find a kit" />}
      {shown.length > 0 && (
        <Chips
          label={more > 0 && !words.trim() ? `${label}: those that changed last` : label}
          options={shown}
          value={id}
          onChoose={onChoose}
        />
      )}
      {shown.length === 0 && <Text tone="muted">{`No kit is called like “${words.trim()}”.`}</Text>}
      {more > 0 && (
        <Text look="small" tone="muted">
          {more === 1 ? 'One more: find it by its name.' : `${more} more: find one by its name.`}
        </Text>
      )}
      {id && !kit && <Text tone="muted">It is on its way from the server.</Text>}
    </View>
  )
}

/** Those whose names have the words in them, else those that changed last; what is chosen stays in sight. */
function kitsToShow(kits: readonly KitToChoose[], words: string, id: KitId | undefined): { shown: readonly KitToChoose[]; more: number } {
  const found = kits.filter(({ text }) => isMeant(text, words))
  if (found.length <= MOST) return { shown: found, more: 0 }
  const first = new Set([...found].sort((a, b) => b.changedAt - a.changedAt).slice(0, MOST))
  const shown = found.filter((one) => first.has(one) || one.value === id)
  return { shown, more: found.length - shown.length }
}
