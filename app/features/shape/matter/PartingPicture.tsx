import type { PartingStart } from '@heliaster/core/matter'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'

import { coreWork, matterWork } from '../../../audio/workers/workers'
import { Canvas } from '../../../ui/drawing/Canvas'
import { layeredPixels } from '../../../ui/drawing/tinted-pixels'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'

interface Props {
  /** One channel of the clip, from its start. */
  readonly mono: Float32Array
  readonly rateHz: number
  readonly start: PartingStart
}

const COLUMNS = 180
const ROWS = 96
const HEIGHT = 150
const LOW_HZ = 40
const HIGH_HZ = 16000
const LONGEST_SECONDS = 3
/** The picture is drawn anew once the finger rests for so long. */
const REST_MS = 120

/** A hit's spectrum along time in two colours: what rings, and what is noise. */
export function PartingPicture({ mono, rateHz, start }: Props) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [layers, setLayers] = useState<readonly [Uint8Array, Uint8Array]>()
  const [size, setSize] = useState(0)
  const { divideHz, steadyMs } = start
  const seconds = Math.min(LONGEST_SECONDS, mono.length / rateHz)
  useEffect(() => {
    let gone = false
    const draw = async () => {
      const heard = mono.slice(0, Math.ceil(seconds * rateHz))
      const { ringing, noise } = await matterWork().part(heard, rateHz, { divideHz, steadySeconds: steadyMs / 1000 })
      const view = { seconds, columns: COLUMNS, rows: ROWS, lowHz: LOW_HZ, highHz: Math.min(HIGH_HZ, rateHz / 2.2) }
      const [rings, rest] = await coreWork().hitSpectrograms([ringing, noise], rateHz, view)
      if (!gone) setLayers([rings!, rest!])
    }
    const timer = setTimeout(() => void draw().catch(() => undefined), REST_MS) // the last picture stays
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [mono, rateHz, seconds, divideHz, steadyMs])
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!canvas.current || !context || !layers) return
    const pixels = layeredPixels(layers, COLUMNS, palette.surface, [palette.kelp, palette.coral])
    context.drawImage(pixels, 0, 0, canvas.current.width, canvas.current.height)
  }, [layers, palette, size])
  return (
    <View style={{ gap: 4 }}>
      <View style={{ borderRadius: 8, overflow: 'hidden', backgroundColor: palette.surface }}>
        <Canvas
          ref={canvas}
          height={HEIGHT}
          label="Ringing and noise of the hit along time"
          onSize={(wide, tall) => setSize(wide * tall)}
        />
      </View>
      <View style={{ flexDirection: 'row', gap: 16 }}>
        <Key color={palette.kelp} words="rings" />
        <Key color={palette.coral} words="noise" />
        <Text look="figures" tone="muted" style={{ flex: 1, textAlign: 'right', fontSize: 12 }}>
          {`40 Hz to ${(Math.min(HIGH_HZ, rateHz / 2.2) / 1000).toFixed(0)} kHz`}
        </Text>
      </View>
    </View>
  )
}

function Key({ color, words }: { readonly color: string; readonly words: string }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <View style={{ width: 12, height: 12, borderRadius: 6, backgroundColor: color }} />
      <Text look="small" tone="muted">
        {words}
      </Text>
    </View>
  )
}
