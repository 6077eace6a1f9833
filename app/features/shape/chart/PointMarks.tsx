import type { Envelope } from '@heliaster/core/kit'
import { movePoints } from '@heliaster/core/shaping'
import type { Layer } from '@heliaster/core/shaping'

import { PointMark } from '../../../ui/controls/PointMark'
import { usePalette } from '../../../ui/theme/theme'
import { share } from './tide-geometry'
import type { Geometry } from './tide-geometry'
import type { ChartWork } from './use-envelope'

interface Props {
  readonly work: ChartWork
  readonly geometry: Geometry
  readonly scale: number
  /** Whether a finger or mouse is at work, which chooses by itself. */
  readonly isHeld: () => boolean
}

/** Keys move points by so much: a millisecond, a hundredth of a level, a tenth of a semitone. */
const KEY_SECONDS = 0.001
const keyValue = (layer: Layer) => (layer === 'pitch' ? 10 : 0.01)

/** The points of the envelope, moved, chosen, copied and taken away by keys where they have the focus. */
export function PointMarks({ work, geometry, scale, isHeld }: Props) {
  const palette = usePalette()
  const { layer, envelope, chosen } = work
  const color = layer === 'level' ? palette.kelp : layer === 'pitch' ? palette.coral : palette.waterInk
  const keys = (index: number) => {
    const moving = chosen.includes(index) ? chosen : [index]
    return {
      onMove(byX: number, byY: number) {
        // Time runs down the tall chart, and values to its right.
        const [later, more] = geometry.isWide ? [byX, byY] : [-byY, byX]
        work.onSlide(movePoints(envelope, moving, (later * KEY_SECONDS) / scale, more * keyValue(layer), layer))
        work.onDone()
      },
      onKey(key: string, isCommand: boolean) {
        if (key === 'Delete' || key === 'Backspace') work.onRemove(moving)
        else if (isCommand && key === 'a') work.onChoose([...envelope.points.keys()])
        else if (isCommand && key === 'c') work.onCopy()
        else if (isCommand && key === 'v') work.onPaste()
        else return false
        return true
      },
    }
  }
  return envelope.points.map((point, index) => {
    if (point.seconds * scale > geometry.seconds * 1.0001) return null
    const [x, y] = geometry.place(point.seconds * scale, share(point.value, layer))
    return (
      <PointMark
        key={index}
        x={x}
        y={y}
        color={color}
        label={`Point ${index + 1} of ${envelope.points.length}`}
        words={pointWords(envelope, index, layer)}
        isChosen={chosen.includes(index)}
        onFocus={() => {
          if (!isHeld() && !chosen.includes(index)) work.onChoose([index])
        }}
        {...keys(index)}
      />
    )
  })
}

function pointWords({ points }: Envelope, index: number, layer: Layer): string {
  const { seconds, value } = points[index]!
  return `${(seconds * 1000).toFixed(1)} ms, ${layer === 'pitch' ? `${value} cents` : `${(value * 100).toFixed(0)} %`}`
}
