import { useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { IconButton } from '../../../ui/controls/Button'
import { Divider } from '../../../ui/layout/Divider'
import { Meter } from '../../../ui/drawing/Meter'
import { PanSlider } from '../../../kit-view/PanAndTune'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'

interface StripProps {
  readonly name: string
  readonly level: () => number
  readonly gainDb: number
  readonly pan: number
  readonly mute: boolean
  readonly onGain: (gainDb: number) => void
  readonly onPan: (pan: number) => void
  readonly onDone: () => void
  readonly onMute: () => void
  readonly children: ReactNode
  /** What it looks like, before its name. */
  readonly face?: ReactNode
  /** What is set more seldom, shown when asked for. */
  readonly settings?: ReactNode
}

/** One line of the mixer: a name over its meter, what is done with it, level and place. */
export function Strip({ name, level, gainDb, pan, mute, onGain, onPan, onDone, onMute, children, face, settings }: StripProps) {
  const [isOpen, setOpen] = useState(false)
  return (
    <View style={{ gap: 2 }}>
      <Divider />
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        {face}
        <View style={{ flex: 1, gap: 4, paddingLeft: face ? 8 : 0 }}>
          <Text look="strong" numberOfLines={1}>
            {name}
          </Text>
          <Meter level={level} label={`Level of ${name}`} />
        </View>
        {children}
        <IconButton
          name={mute ? 'volume-off' : 'volume-high'}
          label={mute ? `${name} is muted` : `Mute ${name}`}
          tone={mute ? 'coral' : 'ink'}
          on={mute}
          onPress={onMute}
        />
        {settings && (
          <IconButton
            name={isOpen ? 'chevron-up' : 'chevron-down'}
            label={`Settings of ${name}`}
            on={isOpen}
            onPress={() => setOpen(!isOpen)}
          />
        )}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 }}>
        <View style={{ flex: 1, minWidth: 220 }}>
          <Slider label="Level" value={gainDb} min={-48} max={24} step={0.1} unit="dB" neutral={0} onSlide={onGain} onDone={onDone} />
        </View>
        <View style={{ flex: 1, minWidth: 220 }}>
          <PanSlider value={pan} onSlide={onPan} onDone={onDone} />
        </View>
      </View>
      {isOpen && settings}
    </View>
  )
}
