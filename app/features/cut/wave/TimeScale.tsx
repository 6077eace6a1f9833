import type { Source } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'

import { Canvas } from '../../../ui/drawing/Canvas'
import { fonts, usePalette } from '../../../ui/theme/theme'
import { cutLooks, placeText, tickStep } from '../bench/looks'
import { xOf } from './view'
import type { View } from './view'

interface Props {
  readonly source: Source
  readonly view: View
  readonly tempoBpm: number
}

const HEIGHT = 18
const APART_PX = 84

/** Where in the recording one is: seconds, frames or beats under the waveform. */
export function TimeScale({ source, view, tempoBpm }: Props) {
  const palette = usePalette()
  const times = useStore(cutLooks, (state) => state.times)
  const canvas = useRef<HTMLCanvasElement>(null)
  const [size, setSize] = useState(0)
  const rate = source.info.sampleRateHz
  const { grid } = source.cut
  useEffect(() => {
    const element = canvas.current
    const context = element?.getContext('2d')
    if (!element || !context) return
    const scale = element.width / Math.max(1, element.clientWidth)
    const beats = grid?.kind === 'beats' ? grid : { tempoBpm, firstSeconds: 0 }
    const [framesEach, zero] =
      times === 'frames' ? [1, 0] : times === 'beats' ? [(60 / beats.tempoBpm) * rate, beats.firstSeconds * rate] : [rate, 0]
    const step = tickStep((view.end - view.start) / framesEach, element.clientWidth / APART_PX)
    context.clearRect(0, 0, element.width, element.height)
    context.fillStyle = palette.muted
    context.font = `${11 * scale}px ${fonts.figures}`
    for (let n = Math.ceil((view.start - zero) / framesEach / step); zero + n * step * framesEach <= view.end; n++) {
      const x = xOf(view, zero + n * step * framesEach, element.width)
      context.fillRect(x, 0, scale, 5 * scale)
      context.fillText(placeText(n * step, step, times), x + 4 * scale, 13 * scale)
    }
  }, [view, times, grid, tempoBpm, rate, palette, size])
  return <Canvas ref={canvas} height={HEIGHT} label="Time" onSize={(w, h) => setSize(w * 10000 + h)} />
}
