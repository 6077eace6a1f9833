import type { Kit, PadId } from '@heliaster/core/kit'
import { drawnTie } from '@heliaster/core/ties'
import type { LineKind } from '@heliaster/core/ties'
import { useState } from 'react'
import { View } from 'react-native'
import Svg, { Line } from 'react-native-svg'

import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { padName } from '../../../kit-view/use-kit'
import { notify } from '../../../ui/layout/notices'
import { Swapping } from '../../../ui/pointer/Swapping'
import { usePalette } from '../../../ui/theme/theme'
import { PadHandle } from '../pads/PadHandle'
import type { Spot } from './arc'
import { TIE_LOOKS } from './tie-looks'

interface Props {
  readonly kit: Kit
  readonly kind: LineKind
  readonly centreOf: (index: number) => Spot
  readonly radius: number
}

const RIM_PX = 5

/** While pads are tied: a line is drawn from one to another, or both are tapped. By keys: Space takes up, arrows go, Space lets go. */
export function TyingPads({ kit, kind, centreOf, radius }: Props) {
  const [held, setHeld] = useState<PadId>()
  const nameOf = (id: PadId) => {
    const pad = kit.pads.find((one) => one.id === id)
    return pad ? padName(kit, pad) : ''
  }
  const tie = (from: PadId, to: PadId) => {
    setHeld(undefined)
    const edits = drawnTie(makeId, kit, kind, from, to)
    if (edits.length > 0) editKit(kit.id, edits)
    else if (from !== to) notify(`${nameOf(from)} and ${nameOf(to)} are tied so already.`)
  }
  const word = TIE_LOOKS[kind].label.toLowerCase()
  return (
    <Swapping<PadId> nameOf={nameOf} onDrop={tie}>
      <View style={{ position: 'absolute', inset: 0, pointerEvents: 'box-none' }}>
        {kit.pads.map(({ id }, index) => (
          <PadHandle
            key={id}
            id={id}
            label={held === undefined ? `Tie from ${nameOf(id)}: ${word}` : `Tie ${nameOf(held)} to ${nameOf(id)}: ${word}`}
            isHeld={id === held}
            onPress={() => (held === undefined ? setHeld(id) : tie(held, id))}
            {...ringAbout(centreOf(index), radius + RIM_PX)}
          >
            {(shift) => <DrawnLine from={centreOf(index)} by={shift} />}
          </PadHandle>
        ))}
      </View>
    </Swapping>
  )
}

const ringAbout = ({ x, y }: Spot, radius: number) => ({
  box: { left: x - radius, top: y - radius, width: 2 * radius, height: 2 * radius },
  radius,
})

/** The line that follows the finger while it is drawn; the pad stays. */
function DrawnLine({ from, by }: { readonly from: Spot; readonly by: Spot }) {
  const palette = usePalette()
  return (
    <Svg style={{ position: 'absolute', left: from.x, top: from.y, overflow: 'visible', zIndex: 3 }} width={1} height={1} aria-hidden>
      <Line x1={0} y1={0} x2={by.x} y2={by.y} stroke={palette.kelp} strokeWidth={3} strokeLinecap="round" />
    </Svg>
  )
}
