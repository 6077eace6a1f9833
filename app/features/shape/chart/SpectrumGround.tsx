import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'

import { coreWork } from '../../../audio/workers/workers'
import { Canvas } from '../../../ui/drawing/Canvas'
import { tintedPixels } from '../../../ui/drawing/tinted-pixels'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { CHART_EDGE } from './tide-geometry'
import type { Geometry } from './tide-geometry'
import { RATE_HZ } from './use-drawn-hit'
import type { DrawnHit } from './use-drawn-hit'

interface Props {
  readonly drawn: DrawnHit
  readonly geometry: Geometry
  /** The frequencies at the lowest and the highest value of the chart, Hz. */
  readonly lowHz: number
  readonly highHz: number
}

const COLUMNS = 220
const ROWS = 120

/** Which frequencies of the hit sound when, on the chart's own axes: an envelope of pitch or filter lies on what it moves. */
export function SpectrumGround({ drawn, geometry, lowHz, highHz }: Props) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [values, setValues] = useState<Uint8Array>()
  const [size, setSize] = useState(0)
  const { isWide, seconds, width, height } = geometry
  useEffect(() => {
    let gone = false
    coreWork()
      .hitSpectrogram(drawn.mono, RATE_HZ, { seconds, columns: COLUMNS, rows: ROWS, lowHz, highHz })
      .then(
        (found) => !gone && setValues(found),
        () => undefined, // the last picture stays
      )
    return () => {
      gone = true
    }
  }, [drawn, seconds, lowHz, highHz])
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!canvas.current || !context || !values) return
    const pixels = tintedPixels(values, COLUMNS, palette.surface, palette.waterInk)
    context.resetTransform()
    // Time runs down the tall chart, and frequencies to the right.
    if (!isWide) context.setTransform(0, 1, -1, 0, canvas.current.width, 0)
    const [along, across] = isWide ? [canvas.current.width, canvas.current.height] : [canvas.current.height, canvas.current.width]
    context.drawImage(pixels, 0, 0, along, across)
  }, [values, palette, size, isWide])
  const places = isWide ? ([{ left: 4, bottom: 4 }, { left: 4, top: 4 }] as const) : ([{ left: 4, top: 2 }, { right: 4, top: 2 }] as const) // prettier-ignore
  return (
    <View style={{ position: 'absolute', left: 0, top: 0, width, height, pointerEvents: 'none' }}>
      <View style={{ position: 'absolute', left: CHART_EDGE, top: CHART_EDGE, right: CHART_EDGE, bottom: CHART_EDGE }}>
        <Canvas
          ref={canvas}
          height={height - 2 * CHART_EDGE}
          label="Frequencies of the hit along time"
          onSize={(wide, tall) => setSize(wide * tall)}
        />
      </View>
      {[lowHz, highHz].map((hz, i) => (
        <Text key={i} look="figures" tone="muted" style={{ position: 'absolute', fontSize: 11, lineHeight: 14, ...places[i] }}>
          {hz < 1000 ? `${hz.toFixed(0)} Hz` : `${(hz / 1000).toFixed(1)} kHz`}
        </Text>
      ))}
    </View>
  )
}
