import { padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Chips } from '../ui/controls/Chips'
import { NameField } from '../ui/controls/NameField'
import { session, useSession } from './session'

const NONE = ''
const OTHER = '\n'

/** The group that new pads come into: one that there is, or a new one; it stays chosen for those that come next. */
export function GroupChoice({ kit, label }: { readonly kit: Kit; readonly label: string }) {
  const group = useSession((state) => state.newGroup)
  const [isTyping, setTyping] = useState(false)
  const choose = (newGroup: string | undefined) => session.setState({ newGroup })
  const there = [...new Set([...groupsOf(kit), ...(group ? [group] : [])])].sort()
  return (
    <View style={{ gap: 6 }}>
      <Chips
        label={label}
        options={[
          { value: NONE, text: 'No group' },
          ...there.map((one) => ({ value: one, text: one })),
          { value: OTHER, text: 'Another …' },
        ]}
        value={isTyping ? OTHER : (group ?? NONE)}
        onChoose={(value) => {
          setTyping(value === OTHER)
          if (value !== OTHER) choose(value || undefined)
        }}
      />
      {isTyping && (
        <NameField
          label="Name of the group"
          value=""
          autoFocus
          onName={(typed) => {
            choose(typed.trim().slice(0, 120) || undefined)
            setTyping(false)
          }}
        />
      )}
    </View>
  )
}

const groupsOf = (kit: Kit) => kit.pads.map((pad) => padSettings(kit, pad).group).filter((group): group is string => !!group)

/** Pads that are new to the kit, in a group; those that are there stay in theirs. */
export function inGroup(kit: Kit, pads: readonly Pad[], group: string | undefined): Pad[] {
  const there = new Set(kit.pads.map(({ id }) => id))
  return pads.map((pad) => (group && !there.has(pad.id) ? { ...pad, own: { ...pad.own, group } } : pad))
}
