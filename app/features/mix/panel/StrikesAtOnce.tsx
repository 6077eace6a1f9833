import type { Kit } from '@heliaster/core/kit'

import type { KitGesture } from '../../../kit-view/use-kit'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'

/** As many as the engine plays where a kit sets no limit. */
const ALL_STRIKES = 64
const FEW_STRIKES = 16

/** How many strikes of the whole kit sound at once. */
export function StrikesAtOnce({ kit, gesture }: { readonly kit: Kit; readonly gesture: KitGesture }) {
  const most = kit.maxStrikes ?? ALL_STRIKES
  return (
    <>
      <Slider
        label="Strikes at once in the whole kit"
        value={most}
        min={1}
        max={128}
        step={1}
        unit=""
        onSlide={(maxStrikes) => gesture.set([{ type: 'setKit', fields: { maxStrikes } }])}
        onDone={gesture.end}
      />
      {most < FEW_STRIKES && (
        <Text look="small" tone="coral">
          So few let drums cut each other off: a boom may end a ringing bell. Limits of single pads and choke groups do less harm.
        </Text>
      )}
    </>
  )
}
