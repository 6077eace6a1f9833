import { columnsOf } from '@heliaster/core/audio'
import { useEffect, useRef, useState } from 'react'
import { View as NativeView } from 'react-native'

import { Canvas } from '../../../ui/drawing/Canvas'
import { usePalette } from '../../../ui/theme/theme'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import type { Analysis } from '../bench/use-source-cut'
import { panned } from './view'
import type { View } from './view'

const HEIGHT = 32

/** The whole recording with the part that is seen; a tap or drag goes there. */
export function Overview({
  analysis,
  view,
  onView,
}: {
  readonly analysis: Analysis
  readonly view: View
  readonly onView: (view: View) => void
}) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [size, setSize] = useState(0)
  const wave = useRef<Whole>(undefined) // drawn once, while the window moves over it
  const frames = analysis.mono.length
  const goTo = (x: number) => onView(panned(view, (x / (canvas.current?.clientWidth ?? 1)) * frames - (view.start + view.end) / 2, frames))
  const drag = usePointerDrag({ onStart: goTo, onMove: goTo, onEnd: () => undefined })
  useEffect(() => {
    const element = canvas.current
    const context = element?.getContext('2d')
    if (!element || !context) return
    const { width, height } = element
    context.clearRect(0, 0, width, height)
    const from = (view.start / frames) * width
    context.fillStyle = palette.water
    context.fillRect(from, 0, Math.max(2, (view.end / frames) * width - from), height)
    if (wave.current?.width !== width || wave.current.analysis !== analysis || wave.current.color !== palette.muted)
      wave.current = { width, analysis, color: palette.muted, picture: drawWhole(analysis, palette.muted, width, height) }
    context.drawImage(wave.current.picture, 0, 0)
  }, [analysis, view, palette, size, frames])
  return (
    <NativeView ref={drag} style={{ height: HEIGHT }}>
      <Canvas ref={canvas} height={HEIGHT} label="Overview" onSize={(w, h) => setSize(w * 10000 + h)} />
    </NativeView>
  )
}

interface Whole {
  readonly width: number
  readonly analysis: Analysis
  readonly color: string
  readonly picture: OffscreenCanvas
}

function drawWhole({ summary, mono }: Analysis, color: string, width: number, height: number): OffscreenCanvas {
  const canvas = new OffscreenCanvas(width, height)
  const context = canvas.getContext('2d')!
  context.fillStyle = color
  const { low, high } = columnsOf(summary, mono, 0, mono.length, width)
  for (let x = 0; x < width; x++) {
    const tall = Math.max(1, Math.sqrt(Math.max(high[x], -low[x])) * height)
    context.fillRect(x, (height - tall) / 2, 1, tall)
  }
  return canvas
}
