import type { Clip } from '@heliaster/core/kit'
import { useMemo, useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { Path, Rect } from 'react-native-svg'

import { useSamples } from '../../../../kit-view/use-samples'
import { EdgeMark } from '../../../../ui/controls/EdgeMark'
import { mirroredOutline, peaksOf } from '../../../../ui/drawing/outline'
import { Text } from '../../../../ui/layout/Text'
import { usePointerDrag } from '../../../../ui/pointer/use-pointer-drag'
import { usePalette } from '../../../../ui/theme/theme'

interface Span {
  readonly startFrame: number
  readonly endFrame: number
}

interface Props {
  readonly clip: Clip
  readonly spans: readonly Span[]
  readonly sampleRateHz: number
  readonly chosen: number
  readonly sounding: readonly number[]
  readonly onChoose: (place: number) => void
  /** The border behind a part is drawn to a frame. */
  readonly onBorder: (place: number, frame: number) => void
  readonly onDone: () => void
}

const HEIGHT_PX = 96
const EDGE = 10
const REACH_PX = 22
const STEP_SECONDS = 0.001
/** Narrower parts have no room for a number. */
const NAME_PX = 20
const COLUMNS = 480

/** A recording with the parts that lie on pads: tapped to hear one, their borders dragged or moved by keys, what sounds lit. */
export function PartsWave({ clip, spans, sampleRateHz, chosen, sounding, onChoose, onBorder, onDone }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const held = useRef<number>(undefined)
  const samples = useSamples(clip)
  const inner = Math.max(1, width - 2 * EDGE)
  const length = clip.endFrame - clip.startFrame
  const xOf = (frame: number) => EDGE + ((frame - clip.startFrame) / length) * inner
  const frameAt = (x: number) => clip.startFrame + ((x - EDGE) / inner) * length
  const borders = spans.slice(0, -1).map(({ endFrame }) => endFrame)
  const { startFrame, endFrame } = clip
  const peaks = useMemo(() => samples && peaksOf(samples, startFrame, endFrame, COLUMNS), [samples, startFrame, endFrame])
  const drag = usePointerDrag({
    onStart(x) {
      const near = borders.map((frame, place) => ({ place, far: Math.abs(xOf(frame) - x) })).sort((a, b) => a.far - b.far)[0]
      held.current = near && near.far <= REACH_PX ? near.place : undefined
      if (held.current === undefined) onChoose(partAt(spans, frameAt(x)))
    },
    onMove: (x) => held.current !== undefined && onBorder(held.current, frameAt(x)),
    onEnd: () => held.current !== undefined && onDone(),
  })
  const fillOf = (place: number) => (sounding.includes(place) ? palette.coralWash : place === chosen ? palette.kelpWash : place % 2 ? palette.waterWash : 'transparent') // prettier-ignore
  return (
    <View ref={drag} onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)} style={{ height: HEIGHT_PX }} testID="parts">
      <Svg width={width} height={HEIGHT_PX} aria-hidden style={{ position: 'absolute' }}>
        {spans.map(({ startFrame, endFrame }, place) => (
          <Rect
            key={place}
            x={xOf(startFrame)}
            width={Math.max(0, xOf(endFrame) - xOf(startFrame))}
            y={0}
            height={HEIGHT_PX}
            fill={fillOf(place)}
            stroke={place === chosen ? palette.kelp : palette.line}
            strokeWidth={place === chosen ? 2 : 1}
          />
        ))}
        {peaks && <Path d={mirroredOutline(peaks, { width: inner, edge: EDGE, height: HEIGHT_PX })} fill={palette.waterInk} />}
      </Svg>
      {spans.map(({ startFrame, endFrame }, place) =>
        xOf(endFrame) - xOf(startFrame) < NAME_PX ? null : (
          <Text
            key={place}
            look="small"
            numberOfLines={1}
            style={{ position: 'absolute', top: 2, left: xOf(startFrame) + 4, maxWidth: xOf(endFrame) - xOf(startFrame) - 6, fontSize: 11, pointerEvents: 'none' }} // prettier-ignore
          >
            {place + 1}
          </Text>
        ),
      )}
      {borders.map((frame, place) => {
        const seconds = (frame - clip.startFrame) / sampleRateHz
        return (
          <EdgeMark
            key={place}
            label={`Border behind part ${place + 1}`}
            x={xOf(frame)}
            height={HEIGHT_PX}
            isBelow
            value={Math.round(seconds * 1000)}
            words={`${seconds.toFixed(3)} s`}
            onNudge={(by) => {
              onBorder(place, frame + by * STEP_SECONDS * sampleRateHz)
              onDone()
            }}
          />
        )
      })}
    </View>
  )
}

function partAt(spans: readonly Span[], frame: number): number {
  const found = spans.findIndex(({ startFrame, endFrame }) => frame >= startFrame && frame < endFrame)
  return found >= 0 ? found : frame < spans[0]!.startFrame ? 0 : spans.length - 1
}
