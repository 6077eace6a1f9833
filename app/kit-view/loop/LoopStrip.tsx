import type { Clip } from '@heliaster/core/kit'
import { useMemo, useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { Line, Path, Rect } from 'react-native-svg'

import { EdgeMark } from '../../ui/controls/EdgeMark'
import { mirroredOutline, peaksOf } from '../../ui/drawing/outline'
import { usePointerDrag } from '../../ui/pointer/use-pointer-drag'
import { usePalette } from '../../ui/theme/theme'

type Loop = NonNullable<Clip['loop']>

interface Props {
  readonly samples: Float32Array
  readonly sampleRateHz: number
  readonly clip: Clip
  readonly loop: Loop
  readonly onSlide: (loop: Loop) => void
  readonly onDone: () => void
}

const STRIP_PX = 64
const SEAM_PX = 56
const EDGE = 10
const COLUMNS = 320
/** So much of each side of the seam is shown, s. */
const SEAM_SECONDS = 0.006
const STEP_SECONDS = 0.001
const LEAST_FRAMES = 2

/** The clip with the stretch that goes round, its ends dragged or moved by keys; and the seam from near. */
export function LoopStrip({ samples, sampleRateHz, clip, loop, onSlide, onDone }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const held = useRef<'startFrame' | 'endFrame'>(undefined)
  const { startFrame, endFrame } = clip
  const inner = Math.max(1, width - 2 * EDGE)
  const xOf = (frame: number) => EDGE + ((frame - startFrame) / (endFrame - startFrame)) * inner
  const peaks = useMemo(() => peaksOf(samples, startFrame, endFrame, COLUMNS), [samples, startFrame, endFrame])
  const move = (which: 'startFrame' | 'endFrame', wanted: number) => {
    const frame = Math.round(Math.min(endFrame, Math.max(startFrame, wanted)))
    if (which === 'startFrame') onSlide({ ...loop, startFrame: Math.min(frame, loop.endFrame - LEAST_FRAMES) })
    else onSlide({ ...loop, endFrame: Math.max(frame, loop.startFrame + LEAST_FRAMES) })
  }
  const drag = usePointerDrag({
    onStart(x) {
      held.current = Math.abs(x - xOf(loop.startFrame)) <= Math.abs(x - xOf(loop.endFrame)) ? 'startFrame' : 'endFrame'
    },
    onMove: (x) => move(held.current!, startFrame + ((x - EDGE) / inner) * (endFrame - startFrame)),
    onEnd: onDone,
  })
  const mark = (which: 'startFrame' | 'endFrame', label: string) => {
    const seconds = (loop[which] - startFrame) / sampleRateHz
    return (
      <EdgeMark
        label={label}
        x={xOf(loop[which])}
        height={STRIP_PX}
        isBelow={which === 'endFrame'}
        value={Math.round(seconds * 1000)}
        words={`${(seconds * 1000).toFixed(1)} ms`}
        onNudge={(by) => {
          move(which, loop[which] + by * STEP_SECONDS * sampleRateHz)
          onDone()
        }}
      />
    )
  }
  return (
    <View style={{ gap: 6 }}>
      <View ref={drag} onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)} style={{ height: STRIP_PX }}>
        <Svg width={width} height={STRIP_PX} aria-hidden style={{ position: 'absolute' }}>
          <Rect x={xOf(loop.startFrame)} width={Math.max(0, xOf(loop.endFrame) - xOf(loop.startFrame))} y={0} height={STRIP_PX} rx={4} fill={palette.waterWash} />
          <Path d={mirroredOutline(peaks, { width: inner, edge: EDGE, height: STRIP_PX })} fill={palette.waterInk} />
        </Svg>
        {mark('startFrame', 'Begin of the round')}
        {mark('endFrame', 'End of the round')}
      </View>
      {loop.kind === 'forward' && <Seam samples={samples} sampleRateHz={sampleRateHz} loop={loop} width={width} />}
    </View>
  ) // prettier-ignore
}

type SeamProps = Pick<Props, 'samples' | 'sampleRateHz' | 'loop'> & { readonly width: number }

/** The wave before the end of the round, and after its begin, as they follow each other: a step is a click. */
function Seam({ samples, sampleRateHz, loop, width }: SeamProps) {
  const palette = usePalette()
  const count = Math.round(SEAM_SECONDS * sampleRateHz)
  const before = Array.from({ length: count }, (_, i) => samples[loop.endFrame - count + i] ?? 0)
  const after = Array.from({ length: count }, (_, i) => samples[loop.startFrame + i] ?? 0)
  const highest = Math.max(0.001, ...before.map(Math.abs), ...after.map(Math.abs))
  const line = (wave: readonly number[], left: number) =>
    `M${wave.map((sample, i) => `${(left + (i / (count - 1)) * (width / 2)).toFixed(1)} ${(SEAM_PX / 2 - (sample / highest) * (SEAM_PX / 2 - 4)).toFixed(1)}`).join('L')}` // prettier-ignore
  return (
    <View
      role="img"
      aria-label={`The seam from near: the end at ${before[count - 1]!.toFixed(2)}, the begin at ${after[0]!.toFixed(2)} of full scale`}
      style={{ height: SEAM_PX, borderRadius: 8, backgroundColor: palette.surface }}
    >
      <Svg width={width} height={SEAM_PX} aria-hidden>
        <Line x1={width / 2} x2={width / 2} y1={0} y2={SEAM_PX} stroke={palette.coral} strokeDasharray="3 3" />
        <Path d={line(before, 0)} fill="none" stroke={palette.waterInk} strokeWidth={1.5} />
        <Path d={line(after, width / 2)} fill="none" stroke={palette.kelp} strokeWidth={1.5} />
      </Svg>
    </View>
  )
}
