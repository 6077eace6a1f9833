import type { Source } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'

import { coreWork } from '../../../audio/workers/workers'
import { Canvas } from '../../../ui/drawing/Canvas'
import { tintedPixels } from '../../../ui/drawing/tinted-pixels'
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
      tintedPixels(picture.values, picture.columns, palette.paper, palette.ink),
      left,
      0,
      (picture.view.end - picture.view.start) * scale,
      canvas.current.height,
    )
  }, [picture, view, palette, width])
  return <Canvas ref={canvas} height={height} label="Spectrogram" onSize={(w) => setWidth(w)} />
}
