import type { Source } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'

import { Canvas } from '../../../ui/drawing/Canvas'
import { usePicture } from '../../../kit-view/MiniWave'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { gainToFill } from './view'

/** A long recording as it was drawn when it came in, seen at once while it is read again. */
export function ReadingPicture({ source, height }: { readonly source: Source; readonly height: number }) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [size, setSize] = useState(0)
  const wide = usePicture(source.audio)?.wide
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!canvas.current || !context || !wide || size === 0) return
    const { width, height: tall } = canvas.current
    const columns = wide.length / 2
    const low = Float32Array.from({ length: columns }, (_, i) => wide[2 * i] / 32767)
    const high = Float32Array.from({ length: columns }, (_, i) => wide[2 * i + 1] / 32767)
    const half = (gainToFill(low, high) * tall) / 2
    context.clearRect(0, 0, width, tall)
    context.fillStyle = palette.waterInk
    for (let x = 0; x < width; x++) {
      const from = Math.floor((x / width) * columns)
      const to = Math.max(from + 1, Math.floor(((x + 1) / width) * columns))
      const top = Math.max(...high.subarray(from, to))
      const bottom = Math.min(...low.subarray(from, to))
      context.fillRect(x, tall / 2 - top * half, 1, Math.max(1, (top - bottom) * half))
    }
    performance.mark('heliaster-wave-drawn')
  }, [wide, size, palette])
  return (
    <View>
      <Canvas ref={canvas} height={height} label="Waveform, being read" onSize={(w, h) => setSize(w * 10000 + h)} />
      <Text tone="muted" role="status" style={{ textAlign: 'center', padding: 24 }}>
        Reading the recording
      </Text>
    </View>
  )
}
