import { useEffect, useRef, useState } from 'react'
import { Pressable, View } from 'react-native'

import { clearMarks, headroomAdvice, live } from '../../audio/recording/live'
import { Badge } from '../../ui/controls/Badge'
import { Canvas } from '../../ui/drawing/Canvas'
import { Text } from '../../ui/layout/Text'
import { Reach } from '../../ui/pointer/Reach'
import { usePalette } from '../../ui/theme/theme'
import type { Palette } from '../../ui/theme/theme'

const SHOWN_SECONDS = 8
const TOLD_MS = 100
/** Room for two lines of advice, so that nothing under or over it moves while one plays. */
const TOLD_HEIGHT = 42

interface Props {
  /** Whether anything comes in. */
  readonly isOpen: boolean
  readonly isRecording: boolean
  readonly height?: number
  /** What is said in place of advice. */
  readonly words?: string
}

/** The last seconds as they come in, with the hits as they are found, over a meter whose marks stay until cleared. */
export function LiveWave({ isOpen, isRecording, height = 76, words }: Props) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [told, setTold] = useState({ seconds: 0, hits: 0, highest: 0, clips: 0, advice: '' })
  useEffect(() => {
    let frame = 0
    let toldAt = 0
    let odd = false
    const paint = (now: number) => {
      odd = !odd
      if (canvas.current && odd) draw(canvas.current, palette, isRecording) // thirty pictures a second are enough
      if (now - toldAt > TOLD_MS) {
        toldAt = now
        const { seconds, hits, highest, clips, clipsCleared } = live
        setTold({ seconds, hits: hits.length, highest, clips: clips - clipsCleared, advice: headroomAdvice() })
      }
      if (isOpen) frame = requestAnimationFrame(paint)
    }
    frame = requestAnimationFrame(paint)
    return () => cancelAnimationFrame(frame)
  }, [isOpen, isRecording, palette])
  const db = told.highest > 0.00001 ? `${(20 * Math.log10(told.highest)).toFixed(1)} dB` : ''
  return (
    <View style={{ width: '100%', maxWidth: 600, gap: 4 }}>
      <Canvas ref={canvas} height={height} label={`What comes in${db ? `, highest ${db}` : ''}`} />
      <View style={{ flexDirection: 'row', alignItems: 'center', minHeight: TOLD_HEIGHT, gap: 10 }}>
        {isRecording ? (
          <>
            <Text look="figures">{timeText(told.seconds)}</Text>
            <Text look="label" tone={told.hits > 0 ? 'ink' : 'muted'} aria-live="polite" style={{ flex: 1 }}>
              {told.hits === 1 ? '1 hit' : `${told.hits} hits`}
            </Text>
          </>
        ) : (
          <Text look="small" tone="muted" style={{ flex: 1 }} numberOfLines={2}>
            {words ?? told.advice}
          </Text>
        )}
        {told.clips > 0 ? (
          <Badge
            text={`Clipped ${told.clips}`}
            label={`Clipped ${told.clips} ${told.clips === 1 ? 'time' : 'times'}; clear the mark`}
            onPress={clearMarks}
          />
        ) : (
          isOpen && (
            <Pressable role="button" aria-label="Forget the highest level" onPress={clearMarks}>
              <Reach width={52} height={17} />
              <Text look="figures" tone="muted">
                {db || 'no level yet'}
              </Text>
            </Pressable>
          )
        )}
      </View>
    </View>
  )
}

export function timeText(seconds: number): string {
  const minutes = Math.floor(seconds / 60)
  return minutes > 0 ? `${minutes}:${(seconds % 60).toFixed(1).padStart(4, '0')}` : `${seconds.toFixed(1)} s`
}

function draw(canvas: HTMLCanvasElement, palette: Palette, isRecording: boolean): void {
  const context = canvas.getContext('2d')!
  const { width, height } = canvas
  const meter = Math.round(height * 0.11)
  const middle = (height - meter * 2) / 2
  context.clearRect(0, 0, width, height)
  context.fillStyle = palette.line
  context.fillRect(0, middle - 0.5, width, 1)
  drawWave(context, palette, width, middle, isRecording)
  drawMeter(context, palette, width, height, meter)
}

function drawWave(context: CanvasRenderingContext2D, palette: Palette, width: number, middle: number, isRecording: boolean): void {
  const { peaks, pieceSeconds, hits, seconds } = live
  const shown = Math.round(SHOWN_SECONDS / pieceSeconds)
  const from = Math.max(0, peaks.length - shown)
  const recorded = Math.round(seconds / pieceSeconds)
  for (let i = from; i < peaks.length; i++) {
    context.fillStyle = isRecording && i >= peaks.length - recorded ? palette.waterInk : palette.line
    const tall = Math.max(1, Math.sqrt(Math.min(1, peaks[i])) * middle)
    context.fillRect(((i - from) / shown) * width, middle - tall, Math.max(1, width / shown - 0.5), tall * 2)
  }
  const right = (Math.min(shown, peaks.length) / shown) * width
  context.fillStyle = palette.coral
  for (const hit of hits) {
    const x = right - ((seconds - hit) / SHOWN_SECONDS) * width
    if (x < 0) continue
    context.fillRect(x, 0, Math.max(2, width / 300), middle * 2)
  }
}

function drawMeter(context: CanvasRenderingContext2D, palette: Palette, width: number, height: number, meter: number): void {
  const { now, held, highest, clips, clipsCleared } = live
  const rows = now.length > 1 ? now : [now[0] ?? 0]
  const tall = meter / rows.length
  rows.forEach((level, i) => {
    const y = height - meter + i * tall
    context.fillStyle = palette.faint
    context.fillRect(0, y, width, tall - (rows.length > 1 ? 1 : 0))
    context.fillStyle = level >= 0.999 ? palette.coral : palette.kelp
    context.fillRect(0, y, share(level) * width, tall - (rows.length > 1 ? 1 : 0))
  })
  context.fillStyle = palette.ink
  if (held > 0) context.fillRect(share(held) * width - 2, height - meter, 3, meter)
  context.fillStyle = clips > clipsCleared ? palette.coral : palette.muted
  if (highest > 0) context.fillRect(share(highest) * width - 1, height - meter - meter * 0.5, 2, meter * 1.5)
}

/** Place of a level on a scale of 60 dB. */
function share(level: number): number {
  return Math.max(0, Math.min(1, 1 + (20 * Math.log10(Math.max(level, 1e-6))) / 60))
}
