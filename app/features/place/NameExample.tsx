import { cellOfFile } from '@heliaster/core/place'
import type { NameRole } from '@heliaster/core/place'
import { useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { NameField } from '../../ui/controls/NameField'
import { NumberField } from '../../ui/controls/Slider'
import { Text } from '../../ui/layout/Text'
import { TOUCH, usePalette } from '../../ui/theme/theme'
import type { Reading } from './use-reading'

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

/**
 * One name in its parts, each with what it is taken for, and the cell it lands in. Saying what a part is, or where the
 * file belongs, teaches it for all names.
 */
export function NameExample({ reading }: { readonly reading: Reading }) {
  const palette = usePalette()
  const [open, setOpen] = useState<string>()
  const { read, example } = reading
  const roleOf = (slot: string) => read.slots.find((one) => one.slot === slot)?.role ?? 'nothing'
  const own = read.parts[example] ?? []
  return (
    <View style={{ gap: 8 }}>
      <Text look="label" tone="muted">
        How a name is read: tap a part to say what it is
      </Text>
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
              minWidth: TOUCH,
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
          onChoose={(role) => reading.say({ [open]: role })}
        />
      )}
      <CellOfExample reading={reading} />
      <NameField
        label="Or type how names are made, as {drum}_{microphone}_v{level}_{take}"
        value={reading.pattern}
        placeholder="{drum} {level} {take}"
        onName={(typed) => reading.setPattern(typed.trim())}
      />
      {reading.patternFault && (
        <Text look="small" tone="coral" role="alert">
          {reading.patternFault}
        </Text>
      )}
      {reading.isKept && <Text look="small">They are laid as was said of these sounds before, whatever they are called now.</Text>}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Another name" onPress={reading.lookAtAnother} />
        {reading.isTaught && <Button label="Forget what was said" onPress={reading.forget} />}
      </View>
    </View>
  )
}

/** The cell that the example lands in, which may be put right by hand. */
function CellOfExample({ reading }: { readonly reading: Reading }) {
  const [said, setSaid] = useState<string>()
  const refused =
    said ?? (reading.isLost ? 'No part of the names says the cell that this file was put into. This is what they say else.' : undefined)
  const cell = cellOfFile(reading.plan, reading.example)
  if (!cell) return null
  const show = (what: 'band' | 'turn', count: number) =>
    setSaid(
      reading.show({ [what]: Math.round(count) - 1 })
        ? undefined
        : `No part of this name says ${what} ${Math.round(count)}. Tap the part that should.`,
    )
  return (
    <View style={{ gap: 4 }}>
      <Text look="small">{cell.microphone === '' ? 'It goes to' : `It goes to ${cell.microphone}, in`}</Text>
      <View style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 8 }}>
        <Text look="small">band</Text>
        <NumberField label="Band of this file" text={String(cell.band + 1)} unit="" width={40} onNumber={(band) => show('band', band)} />
        <Text look="small">turn</Text>
        <NumberField label="Turn of this file" text={String(cell.turn + 1)} unit="" width={40} onNumber={(turn) => show('turn', turn)} />
      </View>
      {refused && (
        <Text look="small" tone="coral" role="alert">
          {refused}
        </Text>
      )}
    </View>
  )
}
