import type { Bus, Kit, Send } from '@heliaster/core/kit'
import { valueOf } from '@heliaster/core/kit'
import { View } from 'react-native'

import { Button, IconButton } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Slider } from '../../ui/controls/Slider'
import { Text } from '../../ui/layout/Text'
import { touchedBy } from './touched'

interface Props {
  readonly kit: Kit
  /** Whose sends they are. */
  readonly from: string
  readonly sends: readonly Send[]
  /** Where something can be sent at all. */
  readonly targets: readonly Bus[]
  readonly onSlide: (sends: readonly Send[]) => void
  readonly onDone: () => void
  readonly onChange: (sends: readonly Send[]) => void
}

const TAPS = [
  { value: 'post', text: 'After the fader' },
  { value: 'pre', text: 'Before it' },
] as const

/** What a ray or bus sends to other buses beside its own way: how much, and from before its fader or after it. */
export function Sends({ kit, from, sends, targets, onSlide, onDone, onChange }: Props) {
  const others = targets.filter(({ id }) => !sends.some(({ busId }) => busId === id))
  if (targets.length === 0) return null
  const changed = (place: number, fields: Partial<Send>) => sends.map((send, i) => (i === place ? { ...send, ...fields } : send))
  return (
    <View style={{ gap: 6 }}>
      {sends.map((send, place) => {
        const target = targets.find(({ id }) => id === send.busId)
        const name = target?.name ?? 'a bus that is gone'
        return (
          <View key={send.busId} style={{ gap: 4 }}>
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
              <View style={{ flex: 1 }}>
                <Slider
                  label={`Sent to ${name}`}
                  value={valueOf(send, 'gainDb')}
                  min={-60}
                  max={12}
                  step={0.1}
                  unit="dB"
                  neutral={0}
                  onSlide={(gainDb) => onSlide(changed(place, { values: { gainDb } }))}
                  onDone={onDone}
                />
              </View>
              <IconButton
                name="close"
                label={`Send ${from} to ${name} no more`}
                onPress={() => onChange(sends.filter((one) => one !== send))}
              />
            </View>
            {target && (
              <Text look="small" tone="muted">
                {`${name} hears ${touchedBy(kit, target)}.`}
              </Text>
            )}
            <Chips
              label={`Where it leaves for ${name}`}
              hideLabel
              options={TAPS}
              value={send.tap}
              onChoose={(tap) => onChange(changed(place, { tap }))}
            />
          </View>
        )
      })}
      {others.length > 0 && (
        <View style={{ gap: 2 }}>
          <Text look="label" tone="muted">
            Send to
          </Text>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
            {others.map(({ id, name }) => (
              <Button
                key={id}
                label={name}
                onPress={() => onChange([...sends, { busId: id, values: { gainDb: START_DB }, tap: 'post' }])}
              />
            ))}
          </View>
        </View>
      )}
    </View>
  )
}

/** A new send is heard, and does not flood. */
const START_DB = -12
