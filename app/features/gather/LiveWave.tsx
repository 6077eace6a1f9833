import { useEffect, useRef, useState } from 'react'
import { Pressable, View } from 'react-native'

import { Canvas } from '../../ui/Canvas'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import type { Palette } from '../../ui/theme'
import type { Moment } from './use-recorder'

const SHOWN_SECONDS = 8
const HEIGHT = 72

/** The last seconds as they come in, with the hits as they are found, over a meter whose clip mark stays. */
export function LiveWave({ moment, running }: { readonly moment: React.RefObject<Moment>; readonly running: boolean }) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [words, setWords] = useState({ time: '0.0 s', hits: 0, peak: '', clipped: false })
  useEffect(() => {
    let frame = 0
    let told = 0
    const paint = (now: number) => {
      if (canvas.current) draw(canvas.current, moment.current, palette)
      if (now - told > 100) {
        told = now
        const { seconds, hits, held, clipped } = moment.current
        const peak = held > 0.00001 ? `${(20 * Math.log10(held)).toFixed(1)} dB` : ''
        setWords({ time: `${seconds.toFixed(1)} s`, hits: hits.length, peak, clipped })
      }
      if (running) frame = requestAnimationFrame(paint)
    }
    frame = requestAnimationFrame(paint)
    return () => cancelAnimationFrame(frame)
  }, [running, moment, palette])
  return (
    <View style={{ width: '100%', maxWidth: 560, gap: 6 }}>
      <Canvas ref={canvas} height={HEIGHT} label="What comes in" />
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center', minHeight: 24 }}>
        <Text look="figures">{words.time}</Text>
        <Text look="label" tone={words.hits > 0 ? 'ink' : 'muted'} aria-live="polite">
          {words.hits === 1 ? '1 hit' : `${words.hits} hits`}
        </Text>
        {words.clipped ? (
          <Pressable
            role="button"
            aria-label="Clear the clip mark"
            onPress={() => (moment.current.clipped = false)}
            style={{ backgroundColor: palette.coral, borderRadius: 4, paddingHorizontal: 8, paddingVertical: 2 }}
          >
            <Text look="label" tone="onCoral">
              Clipped
            </Text>
          </Pressable>
        ) : (
          <Text look="figures" tone="muted">
            {words.peak || 'no level yet'}
          </Text>
        )}
      </View>
    </View>
  )
}

function draw(canvas: HTMLCanvasElement, { peaks, hits, peak, held, seconds }: Moment, palette: Palette): void {
  const context = canvas.getContext('2d')!
  const { width, height } = canvas
  const meter = Math.round(height * 0.12)
  const middle = (height - meter * 1.6) / 2
  context.clearRect(0, 0, width, height)
  context.fillStyle = palette.line
  context.fillRect(0, middle - 0.5, width, 1)
  const piecesShown = Math.round((SHOWN_SECONDS * 48000) / 1024)
  const from = Math.max(0, peaks.length - piecesShown)
  context.fillStyle = palette.waterInk
  for (let i = from; i < peaks.length; i++) {
    const tall = Math.max(1, Math.sqrt(peaks[i]) * middle)
    context.fillRect(((i - from) / piecesShown) * width, middle - tall, Math.max(1, width / piecesShown - 0.5), tall * 2)
  }
  const start = Math.max(0, seconds - SHOWN_SECONDS)
  context.fillStyle = palette.coral
  for (const hit of hits) if (hit >= start) context.fillRect(((hit - start) / SHOWN_SECONDS) * width, 0, 2, middle * 2)
  const scale = (level: number) => Math.max(0, Math.min(1, 1 + (20 * Math.log10(Math.max(level, 1e-6))) / 60)) * width
  context.fillStyle = palette.faint
  context.fillRect(0, height - meter, width, meter)
  context.fillStyle = palette.kelp
  context.fillRect(0, height - meter, scale(peak), meter)
  context.fillStyle = palette.ink
  if (held > 0) context.fillRect(scale(held) - 2, height - meter, 3, meter)
}
