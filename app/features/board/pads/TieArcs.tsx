import type { Kit } from '@heliaster/core/kit'
import { chokedBy } from '@heliaster/core/kit'
import { View } from 'react-native'
import Svg, { Path } from 'react-native-svg'

import { usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly kit: Kit
  readonly centreOf: (index: number) => { x: number; y: number }
  readonly radius: number
  readonly width: number
  readonly height: number
}

/** Which pads silence which: a fine coral arc from rim to rim. */
export function TieArcs({ kit, centreOf, radius, width, height }: Props) {
  const palette = usePalette()
  const pairs = kit.pads.flatMap((pad, from) =>
    chokedBy(kit, pad.id).map((tie) => ({ from, to: kit.pads.findIndex((other) => other.id === tie.padId) })),
  )
  const drawn = pairs.filter(({ from, to }) => to >= 0 && (from < to || !pairs.some((other) => other.from === to && other.to === from)))
  return (
    <View pointerEvents="none" style={{ position: 'absolute', left: 0, top: 0 }}>
      <Svg width={width} height={height} aria-hidden>
        {drawn.map(({ from, to }) => (
          <Path
            key={`${from}-${to}`}
            d={arc(centreOf(from), centreOf(to), radius)}
            stroke={palette.coral}
            strokeWidth={2}
            strokeDasharray="1 5"
            strokeLinecap="round"
            fill="none"
          />
        ))}
      </Svg>
    </View>
  )
}

function arc(a: { x: number; y: number }, b: { x: number; y: number }, radius: number): string {
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length]
  const lift = Math.min(radius * 0.9, length * 0.35)
  const middle = { x: (a.x + b.x) / 2 + uy * lift, y: (a.y + b.y) / 2 - ux * lift }
  const rim = (c: { x: number; y: number }) => {
    const toMiddle = Math.hypot(middle.x - c.x, middle.y - c.y) || 1
    return `${c.x + ((middle.x - c.x) / toMiddle) * radius} ${c.y + ((middle.y - c.y) / toMiddle) * radius}`
  }
  return `M ${rim(a)} Q ${middle.x} ${middle.y} ${rim(b)}`
}
