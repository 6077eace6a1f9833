import type { NameRole, NameRoles, ReadNames } from '@heliaster/core/place'
import { useState } from 'react'
import { Pressable, View } from 'react-native'

import { Chips } from '../../ui/Chips'
import { Text } from '../../ui/Text'
import { TOUCH, usePalette } from '../../ui/theme'

interface Props {
  readonly read: ReadNames
  /** The file whose name stands for all. */
  readonly file: number
  readonly onRoles: (roles: NameRoles) => void
}

export const ROLE_WORDS: Record<NameRole, string> = {
  drum: 'pad',
  note: 'note',
  velocity: 'velocities',
  level: 'how hard',
  microphone: 'microphone',
  take: 'take',
  nothing: 'nothing',
}
const ROLES = (['drum', 'note', 'level', 'microphone', 'take', 'nothing'] as const).map((value) => ({ value, text: ROLE_WORDS[value] }))

/** One name in its parts, each with what it is taken for; saying what a part is teaches it for all names. */
export function NameExample({ read, file, onRoles }: Props) {
  const palette = usePalette()
  const [open, setOpen] = useState<string>()
  const roleOf = (slot: string) => read.slots.find((one) => one.slot === slot)?.role ?? 'nothing'
  const own = read.parts[file] ?? []
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {own.map(({ slot, text }, i) => (
          <Pressable
            key={`${slot} ${i}`}
            role="button"
            aria-label={`“${text}” is taken for: ${ROLE_WORDS[roleOf(slot)]}; change`}
            aria-pressed={open === slot}
            onPress={() => setOpen(open === slot ? undefined : slot)}
            style={{
              minHeight: TOUCH,
              paddingHorizontal: 10,
              justifyContent: 'center',
              borderRadius: 6,
              backgroundColor: open === slot ? palette.kelpWash : palette.surface,
              borderBottomWidth: 2,
              borderBottomColor: roleOf(slot) === 'nothing' ? palette.line : palette.kelp,
            }}
          >
            <Text look="figures">{text}</Text>
            <Text look="small" tone="muted" style={{ fontSize: 12, lineHeight: 15 }}>
              {ROLE_WORDS[roleOf(slot)]}
            </Text>
          </Pressable>
        ))}
      </View>
      {open !== undefined && (
        <Chips
          label={`“${own.find(({ slot }) => slot === open)?.text ?? ''}”, and what stands there in the other names, is`}
          options={ROLES}
          value={roleOf(open) === 'velocity' ? 'level' : roleOf(open)}
          onChoose={(role) => onRoles({ [open]: role })}
        />
      )}
    </View>
  )
}
