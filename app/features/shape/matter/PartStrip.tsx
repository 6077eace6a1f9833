import type { Clip, MatterStep } from '@heliaster/core/kit'

import { Text } from '../../../ui/layout/Text'
import { EndsStrip } from '../quick/EndsStrip'

/** One clip, and how it looks. */
export interface Clipped {
  readonly clip: Clip
  readonly rateHz: number
  readonly seconds: number
  /** Highest level of each part of it, 0..1. */
  readonly levels: Float32Array
}

interface Props {
  readonly clipped: Clipped
  readonly part: MatterStep['part']
  readonly onSlide: (part: MatterStep['part']) => void
  readonly onDone: () => void
}

/** Which stretch of the clip a step works on, between two edges on its wave; all of it where they stand at its ends. */
export function PartStrip({ clipped: { clip, rateHz, seconds, levels }, part, onSlide, onDone }: Props) {
  const start = part ? (part.startFrame - clip.startFrame) / rateHz : 0
  const end = part ? (clip.endFrame - part.endFrame) / rateHz : 0
  const slid = (startSeconds: number, endSeconds: number) => {
    const from = clip.startFrame + Math.round(startSeconds * rateHz)
    const to = clip.endFrame - Math.round(endSeconds * rateHz)
    onSlide(from <= clip.startFrame && to >= clip.endFrame ? undefined : { startFrame: from, endFrame: Math.max(from + 2, to) })
  }
  return (
    <>
      <Text look="label" tone="muted">
        {part ? `Works on ${ms(start)} to ${ms(seconds - end)}` : 'Works on all of it'}
      </Text>
      <EndsStrip
        levels={levels}
        clipSeconds={seconds}
        startSeconds={Math.max(0, start)}
        endSeconds={Math.max(0, end)}
        onSlide={({ startSeconds, endSeconds }) => slid(startSeconds, endSeconds)}
        onDone={onDone}
      />
    </>
  )
}

const ms = (seconds: number) => `${Math.round(1000 * seconds)} ms`
