import type { LiveMarker } from '@heliaster/core/cut'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'

import { Button, IconButton } from '../../ui/Button'
import { NameField } from '../../ui/NameField'
import { Sheet } from '../../ui/Sheet'
import { NumberField } from '../../ui/Slider'
import { Text } from '../../ui/Text'

interface Props {
  readonly chosen: LiveMarker | undefined
  readonly rate: number
  readonly onStep: (by: number) => void
  readonly onPin: (marker: LiveMarker) => void
  readonly onRemove: (marker: LiveMarker) => void
  readonly onNudge: (marker: LiveMarker, frames: number) => void
  readonly onName: (marker: LiveMarker, name: string) => void
  readonly onAdd: () => void
  readonly isWhole: boolean
  readonly onZoom: () => void
  readonly gain: number
  readonly onGain: (gain: number) => void
}

/** What can be done to the chosen marker, and to the view. */
export function MarkerBar({ chosen, rate, onStep, onPin, onRemove, onNudge, onName, onAdd, isWhole, onZoom, gain, onGain }: Props) {
  const [open, setOpen] = useState(false)
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={{ flexGrow: 0 }}
      contentContainerStyle={{ paddingHorizontal: 6, alignItems: 'center', minWidth: '100%', justifyContent: 'space-between' }}
    >
      <IconButton name="chevron-left" label="Previous hit" onPress={() => onStep(-1)} />
      <IconButton name="chevron-right" label="Next hit" onPress={() => onStep(1)} />
      <IconButton
        name={chosen?.pinned ? 'pin' : 'pin-outline'}
        label={chosen?.pinned ? 'Unpin the marker' : 'Pin the marker'}
        on={chosen?.pinned}
        disabled={!chosen}
        onPress={() => chosen && onPin(chosen)}
      />
      <IconButton name="form-textbox" label="Name and place of the hit" disabled={!chosen} onPress={() => setOpen(true)} />
      <IconButton
        name="map-marker-remove-outline"
        label="Remove the marker"
        disabled={!chosen}
        onPress={() => chosen && onRemove(chosen)}
      />
      <IconButton name="map-marker-plus-outline" label="Add a marker" onPress={onAdd} />
      <IconButton
        name={isWhole ? 'magnify-plus-outline' : 'arrow-expand-horizontal'}
        label={isWhole ? 'Look closely at the hit' : 'See the whole recording'}
        onPress={onZoom}
      />
      <IconButton name="arrow-expand-vertical" label="Height of the wave" onPress={() => onGain(gain >= 32 ? 1 : gain * 2)} />
      <Sheet title="This hit" isOpen={open && chosen !== undefined} onClose={() => setOpen(false)}>
        {chosen && (
          <>
            <NameField
              label="Name"
              value={chosen.name ?? ''}
              autoFocus
              placeholder="Give it a name"
              onName={(name) => onName(chosen, name)}
            />
            <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
              <Text look="label" tone="muted">
                Begins at
              </Text>
              <NumberField
                label="Begins at, ms"
                text={((chosen.frame / rate) * 1000).toFixed(2)}
                unit="ms"
                onNumber={(ms) => onNudge(chosen, Math.round((ms * rate) / 1000) - chosen.frame)}
              />
            </View>
            <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
              <Button label="1 ms earlier" onPress={() => onNudge(chosen, -Math.round(rate / 1000))} />
              <Button label="1 ms later" onPress={() => onNudge(chosen, Math.round(rate / 1000))} />
            </View>
          </>
        )}
      </Sheet>
    </ScrollView>
  )
}
