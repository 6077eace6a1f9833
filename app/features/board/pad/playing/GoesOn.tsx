import { padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { View } from 'react-native'

import { editKit } from '../../../../kit-view'
import type { KitGesture } from '../../../../kit-view/use-kit'
import { Button } from '../../../../ui/controls/Button'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { goingOnEdits } from './going-on'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly gesture: KitGesture
}

/** Whether a pad goes on while it is held, how close its strikes follow, and a way to make it cloth, scraping or rolling. */
export function GoesOn({ kit, pad, gesture }: Props) {
  const { mode, values } = padSettings(kit, pad)
  const isHeld = mode === 'hold' || mode === 'loopUntilLetGo'
  const goesOn = isHeld && values.rollSeconds > 0
  return (
    <>
      {isHeld && (
        <Slider
          label="While held, strikes follow every"
          value={values.rollSeconds * 1000}
          min={0}
          max={1000}
          step={1}
          power={2}
          unit="ms"
          neutral={0}
          onSlide={(ms) => gesture.set([{ type: 'setPad', padId: pad.id, own: { values: { rollSeconds: ms / 1000 } } }])}
          onDone={gesture.end}
        />
      )}
      <Text look="small" tone="muted">
        {goesOn
          ? 'A finger that moves on its face leads it: from left to right as the wheel does, upward as pressing harder. What these move stands in Shape, under Dynamics.'
          : 'Cloth, scraping, rolling: a long clip of which short strikes go on while it is held, led by a finger, the wheel or pressure.'}
      </Text>
      {!goesOn && (
        <View style={{ flexDirection: 'row' }}>
          <Button label="Let it go on while held" onPress={() => editKit(kit.id, goingOnEdits(kit, pad), pad.id)} />
        </View>
      )}
    </>
  )
}
