import { columnsOf } from '@heliaster/core/audio'
import { useEffect, useRef, useState } from 'react'
import { View as NativeView } from 'react-native'

import { Canvas } from '../../../ui/drawing/Canvas'
import { usePalette } from '../../../ui/theme/theme'
import type { Palette } from '../../../ui/theme/theme'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import type { Analysis } from '../bench/use-source-cut'
import type { View } from './view'

interface Props {
  readonly analysis: Analysis
  readonly view: View
  readonly waterLine: number
  readonly height: number
  readonly onSlide: (waterLine: number) => void
  readonly onDone: () => void
}

/** The curve of strike strength with the water line across it: peaks that stand out of the water are hits. */
export function StrengthChart({ analysis, view, waterLine, height, onSlide, onDone }: Props) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [size, setSize] = useState(0)
  const toLine = (y: number) => Math.round(Math.min(1, Math.max(0.02, 1 - y / height)) * 200) / 200
  const drag = usePointerDrag({ onStart: (_x, y) => onSlide(toLine(y)), onMove: (_x, y) => onSlide(toLine(y)), onEnd: onDone })
  const keys: Record<string, number> = { ArrowUp: 0.01, ArrowRight: 0.01, ArrowDown: -0.01, ArrowLeft: -0.01, PageUp: 0.1, PageDown: -0.1 }
  useEffect(() => {
    if (canvas.current) draw(canvas.current, analysis, view, waterLine, palette)
  }, [analysis, view, waterLine, palette, size])
  return (
    <NativeView
      ref={drag}
      role="slider"
      tabIndex={0}
      aria-label="Water line"
      aria-orientation="vertical"
      aria-valuemin={2}
      aria-valuemax={100}
      aria-valuenow={Math.round(waterLine * 100)}
      {...{
        onKeyDown: (event: { key: string; preventDefault(): void }) => {
          if (!(event.key in keys)) return
          event.preventDefault()
          onSlide(Math.min(1, Math.max(0.02, Math.round((waterLine + keys[event.key]) * 200) / 200)))
          onDone()
        },
      }}
      style={{ height, cursor: 'ns-resize' as never }}
    >
      <Canvas ref={canvas} height={height} label="Strike strength" onSize={(w, h) => setSize(w * 10000 + h)} />
    </NativeView>
  )
}

function draw(canvas: HTMLCanvasElement, { shown, levels }: Analysis, view: View, waterLine: number, palette: Palette): void {
  const context = canvas.getContext('2d')!
  const { width, height } = canvas
  const scale = width / Math.max(1, canvas.clientWidth)
  const { hopFrames } = shown
  const { high } = columnsOf(levels, shown.strength, view.start / hopFrames, view.end / hopFrames, width)
  context.clearRect(0, 0, width, height)
  const line = height * (1 - waterLine)
  context.beginPath()
  context.moveTo(0, height)
  for (let x = 0; x < width; x++) context.lineTo(x, height * (1 - high[x]))
  context.lineTo(width, height)
  context.closePath()
  context.fillStyle = palette.line
  context.fill()
  context.save()
  context.clip()
  context.fillStyle = palette.coral // what stands out of the water
  context.fillRect(0, 0, width, line)
  context.restore()
  context.globalAlpha = 0.55
  context.fillStyle = palette.water
  context.fillRect(0, line, width, height - line)
  context.globalAlpha = 1
  context.fillStyle = palette.waterInk
  context.fillRect(0, line - scale, width, 2 * scale)
  context.beginPath()
  context.arc(width - 18 * scale, line, 9 * scale, 0, 2 * Math.PI)
  context.fill()
}
