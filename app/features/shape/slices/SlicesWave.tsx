// Our own: a wave that is drawn on by hand and keys; the elements have nothing like it.
import type { Clip } from '@heliaster/core/kit'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'
import { useMemo, useState } from 'react'
import { View } from 'react-native'

import { useSamples } from '../../../kit-view/use-samples'
import { EdgeMark } from '../../../ui/controls/EdgeMark'
import { peaksOf } from '../../../ui/drawing/outline'
import { usePalette } from '../../../ui/theme/theme'
import { SlicesPicture } from './SlicesPicture'
import { shareOf, stepped } from './lanes'
import type { Lane } from './lanes'
import type { SliceKey } from './slice-keys'
import type { Slices } from './slices-view'
import { edgesOf, useSliceHand } from './use-slice-hand'
import type { HandMode } from './use-slice-hand'
import { keysOfWave } from './wave-keys'

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
  const step = (steps: number) => {
    const next = stepped(lane, amount, steps)
    onAmounts(
      amounts.map((before, i) => (i >= span.first && i <= span.last ? next : before)),
      span,
    )
    onDone()
  }
  const onKeyDown = keysOfWave({ span, count: slices.length, onChoose, onKey: props.onKey, onStep: step, onHear })
  const [from, to] = edgesOf(clip, slices, span)
  const words = `${isOne ? `slice ${span.first + 1}` : `slices ${span.first + 1} to ${span.last + 1}`} of ${slices.length}, ${amounts[span.last] === undefined ? 'nothing drawn' : lane.words(amount)}`
  return (
    <View
      ref={drag}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height: WAVE_PX, borderRadius: 8, backgroundColor: palette.surface, cursor: 'pointer' }}
      testID="slices"
    >
      <SlicesPicture
        size={{ width, height: WAVE_PX, edge: EDGE }}
        peaks={peaks}
        slices={slices.map((slice) => ({ ...slice, frame: Math.max(startFrame, slice.frame) }))}
        endFrame={endFrame}
        lane={lane}
        amounts={amounts}
        chosen={[from, to]}
        areBordersClear={mode === 'cut'}
        xOf={xOf}
      />
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
