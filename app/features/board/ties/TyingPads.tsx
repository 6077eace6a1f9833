import type { Kit, PadId } from '@heliaster/core/kit'
import { drawnTie } from '@heliaster/core/ties'
import type { LineKind } from '@heliaster/core/ties'
import { useState } from 'react'
import { Pressable, View } from 'react-native'
import Svg, { Line } from 'react-native-svg'

import { strikePad } from '../../../audio/engine/sound'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { padName } from '../../../kit-view/use-kit'
import { notify } from '../../../ui/layout/notices'
import { Swapping, useSwapped } from '../../../ui/pointer/Swapping'
import { usePalette } from '../../../ui/theme/theme'
import type { Spot } from './arc'
import { TIE_LOOKS } from './tie-looks'

interface Props {
  readonly kit: Kit
  readonly kind: LineKind
  readonly centreOf: (index: number) => Spot
  readonly radius: number
}

/** As hard as a pad sounds when it is taken up. */
const TAKEN = 96
const TAKEN_KEY = 902

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
          <TiedPad
            key={id}
            id={id}
            label={held === undefined ? `Tie from ${nameOf(id)}: ${word}` : `Tie ${nameOf(held)} to ${nameOf(id)}: ${word}`}
            isHeld={id === held}
            centre={centreOf(index)}
            radius={radius}
            onTake={() => strikePad({ padId: id, velocity: TAKEN, key: TAKEN_KEY })}
            onPress={() => (held === undefined ? setHeld(id) : tie(held, id))}
          />
        ))}
      </View>
    </Swapping>
  )
}

interface TiedPadProps {
  readonly id: PadId
  readonly label: string
  readonly isHeld: boolean
  readonly centre: Spot
  readonly radius: number
  readonly onTake: () => void
  readonly onPress: () => void
}

const RIM_PX = 5

/** The ring round a pad from which a line is drawn; it stays, and the line follows the finger. */
function TiedPad({ id, label, isHeld, centre, radius, onTake, onPress }: TiedPadProps) {
  const palette = usePalette()
  const { ref, isOver, isDragging, shift, listeners, described } = useSwapped(id)
  const isMarked = isHeld || isOver || isDragging
  const outer = radius + RIM_PX
  return (
    <>
      <Pressable
        ref={ref}
        role="button"
        aria-pressed={isHeld}
        aria-label={label}
        onPressIn={onTake}
        onPress={onPress}
        {...described}
        {...listeners}
        {...{ dataSet: { tying: id } }}
        style={{
          position: 'absolute',
          left: centre.x - outer,
          top: centre.y - outer,
          width: 2 * outer,
          height: 2 * outer,
          borderRadius: outer,
          borderWidth: isMarked ? 3 : 1,
          borderStyle: isMarked ? 'solid' : 'dashed',
          borderColor: isMarked ? palette.kelp : palette.muted,
          ...({ userSelect: 'none' } as object),
        }}
      />
      {shift && (
        <Svg
          style={{ position: 'absolute', left: centre.x, top: centre.y, overflow: 'visible', zIndex: 3 }}
          width={1}
          height={1}
          aria-hidden
        >
          <Line x1={0} y1={0} x2={shift.x} y2={shift.y} stroke={palette.kelp} strokeWidth={3} strokeLinecap="round" />
        </Svg>
      )}
    </>
  )
}
