// Our own: amounts drawn over a wave; the elements have nothing like it.
import type { Amounts } from '@heliaster/core/slices'
import Svg, { Line, Path, Rect } from 'react-native-svg'

import { mirroredOutline } from '../../../ui/drawing/outline'
import { usePalette } from '../../../ui/theme/theme'
import { shareOf } from './lanes'
import type { Lane } from './lanes'
import type { Slices } from './slices-view'

const BAR_PX = 6

interface Props {
  readonly size: { readonly width: number; readonly height: number; readonly edge: number }
  readonly peaks: Parameters<typeof mirroredOutline>[0] | undefined
  readonly slices: Slices
  readonly endFrame: number
  readonly lane: Lane
  readonly amounts: Amounts
  /** Where the chosen stretch begins and ends, frames. */
  readonly chosen: readonly [number, number]
  /** Borders are what one works on. */
  readonly areBordersClear: boolean
  readonly xOf: (frame: number) => number
}

/** A wave, its slices, what is drawn over each, and the stretch that is chosen. */
export function SlicesPicture({ size: { width, height, edge }, peaks, slices, endFrame, lane, amounts, chosen: [from, to], areBordersClear, xOf }: Props) {
  const palette = usePalette()
  const base = height * (1 - shareOf(lane, lane.hasOff && lane.usual < lane.least ? lane.usual : 0))
  const stretch = { x: xOf(from), width: Math.max(0, xOf(to) - xOf(from)) }
  return (
    <Svg width={width} height={height} aria-hidden style={{ position: 'absolute' }}>
      <Rect {...stretch} y={0} height={height} fill={palette.kelpWash} />
      {peaks && <Path d={mirroredOutline(peaks, { width: Math.max(1, width - 2 * edge), edge, height })} fill={palette.water} />}
      {slices.map((slice, i) => {
        const [left, right] = [xOf(slice.frame), xOf(slices[i + 1]?.frame ?? endFrame)]
        const place = { left, width: Math.max(1, right - left - 2), height, base }
        return [
          <Line key={`b${slice.id}`} x1={left} x2={left} y1={0} y2={height} stroke={palette.muted} strokeWidth={1} opacity={areBordersClear ? 1 : 0.45} />,
          <DrawnAmount key={slice.id} place={place} lane={lane} amount={amounts[i]} />,
        ]
      })}
      <Rect {...stretch} y={0.75} height={height - 1.5} fill="none" stroke={palette.kelp} strokeWidth={1.5} />
    </Svg>
  )
} // prettier-ignore

interface AmountProps {
  readonly place: { readonly left: number; readonly width: number; readonly height: number; readonly base: number }
  readonly lane: Lane
  readonly amount: number | undefined
}

/** A bar at the amount of a slice, filled down to where the lane has its base; a broken line where nothing is drawn. */
function DrawnAmount({ place: { left, width, height, base }, lane, amount }: AmountProps) {
  const palette = usePalette()
  const y = height * (1 - shareOf(lane, amount ?? lane.usual))
  const top = Math.min(height - BAR_PX, Math.max(0, y - BAR_PX / 2))
  const [x, middle] = [left + 1, top + BAR_PX / 2]
  if (amount === undefined)
    return <Line x1={x} x2={x + width} y1={middle} y2={middle} stroke={palette.muted} strokeWidth={1.5} strokeDasharray="3 4" />
  return (
    <>
      <Rect x={x} width={width} y={Math.min(y, base)} height={Math.abs(base - y)} fill={palette.kelp} fillOpacity={0.3} />
      <Rect x={x} width={width} y={top} height={BAR_PX} rx={2} fill={palette.kelp} />
    </>
  )
}
