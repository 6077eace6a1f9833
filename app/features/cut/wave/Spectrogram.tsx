import type { Source } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'

import { coreWork } from '../../../audio/workers/workers'
import { Canvas } from '../../../ui/drawing/Canvas'
import { usePalette } from '../../../ui/theme/theme'
import type { View } from './view'

const ROWS = 96
const MOST_COLUMNS = 700
const SETTLE_MS = 60

interface Picture {
  readonly values: Uint8Array
  readonly columns: number
  readonly view: View
}

/** Which frequencies sound when, from 40 Hz up, under the waveform. It is computed away from the page, for what is seen. */
export function Spectrogram({ source, view, height }: { readonly source: Source; readonly view: View; readonly height: number }) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [width, setWidth] = useState(0)
  const [picture, setPicture] = useState<Picture>()
  useEffect(() => {
    if (width === 0) return undefined
    let gone = false
    const columns = Math.min(MOST_COLUMNS, width)
    const timer = setTimeout(() => {
      void coreWork()
        .spectrogram(source.audio, view.start, view.end, columns, ROWS)
        .then((values) => !gone && values && setPicture({ values, columns, view }))
    }, SETTLE_MS)
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [source.audio, view, width])
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!canvas.current || !context) return
    context.clearRect(0, 0, canvas.current.width, canvas.current.height)
    if (!picture) return
    // What was computed for another view stands where it belongs until the new one is there.
    const scale = canvas.current.width / (view.end - view.start)
    const left = (picture.view.start - view.start) * scale
    context.imageSmoothingEnabled = true
    context.drawImage(
      drawn(picture, palette.paper, palette.ink),
      left,
      0,
      (picture.view.end - picture.view.start) * scale,
      canvas.current.height,
    )
  }, [picture, view, palette, width])
  return <Canvas ref={canvas} height={height} label="Spectrogram" onSize={(w) => setWidth(w)} />
}

function drawn({ values, columns }: Picture, paper: string, ink: string): OffscreenCanvas {
  const [from, to] = [channelsOf(paper), channelsOf(ink)]
  const image = new ImageData(columns, ROWS)
  for (let i = 0; i < values.length; i++) {
    const share = values[i] / 255
    for (let channel = 0; channel < 3; channel++) image.data[4 * i + channel] = from[channel] + share * (to[channel] - from[channel])
    image.data[4 * i + 3] = 255
  }
  const canvas = new OffscreenCanvas(columns, ROWS)
  canvas.getContext('2d')!.putImageData(image, 0, 0)
  return canvas
}

function channelsOf(hex: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)) as [number, number, number]
}
