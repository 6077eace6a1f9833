import { valueOf } from '@heliaster/core/kit'
import type { Band, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { mergeDown, removeBand, setCellBand } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { soloed, toggleAlone } from '../../../../audio/engine/solo'
import { strikePad } from '../../../../audio/engine/sound'
import { AskButton } from '../../../../ui/controls/AskButton'
import { Button } from '../../../../ui/controls/Button'
import { leftOutByMerge } from '../../edits/pad-edits'
import { Chips } from '../../../../ui/controls/Chips'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { editKit } from '../../../../kit-view'
import type { padGesture } from '../../../../kit-view/use-kit'
import { refillEdits } from './refill'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly cells: Cells
  readonly band: Band
  readonly gesture: ReturnType<typeof padGesture>
}

const LAWS = [
  { value: 'power', text: 'Unlike clips' },
  { value: 'linear', text: 'Like clips' },
] as const

/** One band: its level, how it fades into the one below, and what becomes of it. */
export function BandPanel({ kit, pad, cells, band, gesture }: Props) {
  const { bands } = cells
  const isAlone = useStore(soloed, (state) => state.bands.includes(band.id))
  const index = bands.indexOf(band)
  const below = bands[index - 1]
  const to = (bands[index + 1]?.fromVelocity ?? 128) - 1
  const set = (fields: Partial<Band>): KitEdit => setCellBand(pad, cells, band.id, fields)
  const refill = (next: Band[]) => void refillEdits(pad, cells, next).then((edits) => editKit(kit.id, edits, pad.id))
  return (
    <View style={{ gap: 10 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, flexWrap: 'wrap' }}>
        <Text look="label" style={{ flex: 1 }}>
          {`Band ${index + 1}, velocity ${band.fromVelocity} to ${to}`}
        </Text>
        <Button
          label="Strike it"
          onPress={() => strikePad({ padId: pad.id, velocity: Math.round((band.fromVelocity + to) / 2), key: 901 })}
        />
        {bands.length > 1 && (
          <Button label={isAlone ? 'All bands again' : 'Keep it alone'} onPress={() => toggleAlone(pad, 'bands', band.id)} />
        )}
      </View>
      <Slider
        label="Level of the band"
        value={valueOf(band, 'gainDb')}
        min={-36}
        max={24}
        step={0.1}
        unit="dB"
        neutral={0}
        onSlide={(gainDb) => gesture.set([set({ values: { gainDb } })])}
        onDone={gesture.end}
      />
      {below && (
        <>
          <Slider
            label="Fades in over the band below, velocities"
            value={band.blendVelocities}
            min={0}
            max={Math.max(1, band.fromVelocity - below.fromVelocity)}
            step={1}
            unit=""
            onSlide={(blendVelocities) => gesture.set([set({ blendVelocities })])}
            onDone={gesture.end}
          />
          {band.blendVelocities > 0 && (
            <Chips
              label="The fade is for"
              options={LAWS}
              value={band.blendLaw}
              onChoose={(blendLaw) => editKit(kit.id, [set({ blendLaw })], pad.id)}
            />
          )}
        </>
      )}
      <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
        {below && (
          <AskButton
            label="Merge with the one below"
            warning={leftOutByMerge(below, band)}
            confirm="Merge, and leave those out"
            onPress={() => refill(mergeDown(bands, band.id))}
          />
        )}
        {bands.length > 1 && (
          <Button
            label={band.turns.length > 0 ? `Remove the band and its ${band.turns.length} turns` : 'Remove the empty band'}
            onPress={() => refill(removeBand(bands, band.id))}
          />
        )}
      </View>
    </View>
  )
}
