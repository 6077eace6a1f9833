// Our own: amounts drawn over a wave; the elements have nothing like it.
import type { Clip } from '@heliaster/core/kit'
import { spanOf } from '@heliaster/core/slices'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import Svg, { Line, Path, Rect } from 'react-native-svg'

import { useSamples } from '../../../kit-view/use-samples'
import { EdgeMark } from '../../../ui/controls/EdgeMark'
import { mirroredOutline, peaksOf } from '../../../ui/drawing/outline'
import { usePalette } from '../../../ui/theme/theme'
import { shareOf, stepped } from './lanes'
import type { Lane } from './lanes'
import type { SliceKey } from './slice-keys'
import type { Slices } from './slices-view'
import { edgesOf, useSliceHand } from './use-slice-hand'
import type { HandMode } from './use-slice-hand'

interface Props {
  readonly clip: Clip
  readonly slices: Slices
  readonly sampleRateHz: number
  readonly lane: Lane
  readonly amounts: Amounts
  readonly span: SliceSpan
  readonly mode: HandMode
  readonly onChoose: (span: SliceSpan) => void
  readonly onAmounts: (amounts: Amounts, span: SliceSpan) => void
  readonly onSlices: (slices: Slices) => void
  readonly onCutAt: (frame: number) => void
  readonly onHear: () => void
  readonly onDone: () => void
  /** Keys that cut, copy and lay down, and that move and resize the stretch. */
  readonly onKey: (key: SliceKey) => void
}

export const WAVE_PX = 148
const EDGE = 10
const COLUMNS = 480
const BAR_PX = 6
/** Borders stay so far apart. */
const GAP_SECONDS = 0.005
const STEP_SECONDS = 0.001

/** A clip with its slices and what is drawn over them: by a finger, or by keys, slice by slice. */
export function SlicesWave(props: Props) {
  const { clip, slices, sampleRateHz, lane, amounts, span, mode, onChoose, onAmounts, onSlices, onHear, onDone } = props
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const samples = useSamples(clip)
  const { startFrame, endFrame } = clip
  const inner = Math.max(1, width - 2 * EDGE)
  const xOf = (frame: number) => EDGE + ((frame - startFrame) / (endFrame - startFrame)) * inner
  const frameAt = (x: number) => startFrame + ((x - EDGE) / inner) * (endFrame - startFrame)
  const peaks = useMemo(() => samples && peaksOf(samples, startFrame, endFrame, COLUMNS), [samples, startFrame, endFrame])
  const gapFrames = Math.round(GAP_SECONDS * sampleRateHz)
  const drag = useSliceHand({ ...props, height: WAVE_PX, frameAt, xOf, gapFrames })
  const isOne = span.first === span.last
  const amount = amounts[span.last] ?? lane.usual
  const set = (next: number) => {
    onAmounts(
      amounts.map((before, i) => (i >= span.first && i <= span.last ? next : before)),
      span,
    )
    onDone()
  }
  const keys: Record<string, () => void> = {
    ArrowUp: () => set(stepped(lane, amount, 1)),
    ArrowDown: () => set(stepped(lane, amount, -1)),
    PageUp: () => set(stepped(lane, amount, 6)),
    PageDown: () => set(stepped(lane, amount, -6)),
    Delete: () => props.onKey('clear'),
    Backspace: () => props.onKey('clear'),
    Enter: onHear,
  }
  const onKeyDown = (event: KeyPress) => {
    const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
    const isCommand = event.ctrlKey || event.metaKey
    const command = isCommand ? ({ x: 'cut', c: 'copy', v: 'paste' } as const)[event.key] : undefined
    const act = command
      ? () => props.onKey(command)
      : way !== 0
        ? () => sideways(way, event)
        : isCommand || event.altKey
          ? undefined
          : keys[event.key]
    if (!act) return
    event.preventDefault()
    event.stopPropagation()
    act()
  }
  const sideways = (way: number, { shiftKey, altKey }: KeyPress) => {
    if (altKey && shiftKey) return props.onKey(way < 0 ? 'shorter' : 'longer')
    if (altKey) return props.onKey(way < 0 ? 'earlier' : 'later')
    const to = Math.max(0, Math.min(slices.length - 1, span.last + way))
    return onChoose(shiftKey ? { first: Math.min(span.first, to), last: Math.max(span.first, to) } : spanOf(to, to))
  }
  const [from, to] = edgesOf(clip, slices, span)
  const base = WAVE_PX * (1 - shareOf(lane, lane.hasOff && lane.usual < lane.least ? lane.usual : 0))
  const words = `${isOne ? `slice ${span.first + 1}` : `slices ${span.first + 1} to ${span.last + 1}`} of ${slices.length}, ${amounts[span.last] === undefined ? 'nothing drawn' : lane.words(amount)}`
  return (
    <View
      ref={drag}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height: WAVE_PX, borderRadius: 8, backgroundColor: palette.surface, cursor: 'pointer' }}
      testID="slices"
    >
      <Svg width={width} height={WAVE_PX} aria-hidden style={{ position: 'absolute' }}>
        <Rect x={xOf(from)} width={Math.max(0, xOf(to) - xOf(from))} y={0} height={WAVE_PX} fill={palette.kelpWash} />
        {peaks && <Path d={mirroredOutline(peaks, { width: inner, edge: EDGE, height: WAVE_PX })} fill={palette.water} />}
        {slices.map((slice, i) => {
          const [left, right] = [xOf(Math.max(startFrame, slice.frame)), xOf(slices[i + 1]?.frame ?? endFrame)]
          const drawn = amounts[i]
          const y = WAVE_PX * (1 - shareOf(lane, drawn ?? lane.usual))
          const bar = Math.max(1, right - left - 2)
          const top = Math.min(WAVE_PX - BAR_PX, Math.max(0, y - BAR_PX / 2))
          return [
            <Line key={`b${slice.id}`} x1={left} x2={left} y1={0} y2={WAVE_PX} stroke={palette.muted} strokeWidth={1} opacity={mode === 'cut' ? 1 : 0.45} />,
            drawn === undefined ? (
              <Line key={slice.id} x1={left + 1} x2={left + 1 + bar} y1={top + BAR_PX / 2} y2={top + BAR_PX / 2} stroke={palette.muted} strokeWidth={1.5} strokeDasharray="3 4" />
            ) : (
              <Rect key={slice.id} x={left + 1} width={bar} y={Math.min(y, base)} height={Math.abs(base - y)} fill={palette.kelp} fillOpacity={0.3} />
            ),
            drawn === undefined ? null : <Rect key={`t${slice.id}`} x={left + 1} width={bar} y={top} height={BAR_PX} rx={2} fill={palette.kelp} />,
          ]
        })}
        <Rect x={xOf(from)} width={Math.max(0, xOf(to) - xOf(from))} y={0.75} height={WAVE_PX - 1.5} fill="none" stroke={palette.kelp} strokeWidth={1.5} />
      </Svg>
      <View
        role="slider"
        tabIndex={0}
        aria-label={`${lane.text} of slices`}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(100 * shareOf(lane, amount))}
        aria-valuetext={words}
        {...{ onKeyDown }}
        style={{ position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, borderRadius: 8 }}
      />
      {mode === 'stretch' && !isOne && (
        <>
          <EdgeMark label="Start of the stretch" x={xOf(from)} height={WAVE_PX} value={span.first + 1} words={`slice ${span.first + 1}`} onNudge={(by) => props.onKey(by < 0 ? 'earlier' : 'later')} />
          <EdgeMark label="End of the stretch" x={xOf(to)} height={WAVE_PX} isBelow value={span.last + 1} words={`slice ${span.last + 1}`} onNudge={(by) => props.onKey(by < 0 ? 'shorter' : 'longer')} />
        </>
      )}
      {mode === 'cut' && isOne && span.first > 0 && (
        <EdgeMark
          label={`Border before slice ${span.first + 1}`}
          x={xOf(from)}
          height={WAVE_PX}
          value={Math.round((1000 * (from - startFrame)) / sampleRateHz)}
          words={`${((from - startFrame) / sampleRateHz).toFixed(3)} s`}
          onNudge={(by) => {
            const next = from + by * STEP_SECONDS * sampleRateHz
            onSlices(slices.map((slice, i) => (i === span.first ? { ...slice, frame: Math.round(Math.min((slices[i + 1]?.frame ?? endFrame) - gapFrames, Math.max(slices[i - 1]!.frame + gapFrames, next))) } : slice)))
            onDone()
          }}
        />
      )}
    </View>
  )
} // prettier-ignore

interface KeyPress {
  readonly key: string
  readonly shiftKey: boolean
  readonly altKey: boolean
  readonly ctrlKey: boolean
  readonly metaKey: boolean
  preventDefault(): void
  stopPropagation(): void
}
