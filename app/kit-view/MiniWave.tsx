import type { AudioHash } from '@heliaster/core/kit'
import { memo, useEffect, useState } from 'react'
import { unstable_createElement } from 'react-native-web'

import { audioPicture, drawnPicture } from '../audio/files/audio-files'
import type { Picture } from '../audio/files/picture'
import { usePalette } from '../ui/theme/theme'

interface Props {
  readonly audio: AudioHash
  readonly width: number
  readonly height: number
}

/** Heights of the drawing; the browser stretches it to its place. */
const BOX = 100

/** A small waveform of a whole file. Its place is kept while it is drawn, so that nothing jumps. Long lists are full of them. */
export const MiniWave = memo(function MiniWave({ audio, width, height }: Props) {
  const palette = usePalette()
  const picture = usePicture(audio)
  const path = unstable_createElement('path', { d: picture ? outlineOf(picture) : '', fill: palette.waterInk })
  return unstable_createElement('svg', {
    width,
    height,
    viewBox: `0 0 ${BOX} ${BOX}`,
    preserveAspectRatio: 'none',
    'aria-hidden': true,
    style: { flexShrink: 0 },
    children: path,
  })
})

interface OutlineProps {
  /** Lowest and highest of each column. */
  readonly low: Float32Array
  readonly high: Float32Array
  readonly width: number
  readonly height: number
  /** How much of the height its highest point takes, 0..1. */
  readonly share: number
}

/** A waveform as it was measured, at a share of its place's height. */
export const Outline = memo(function Outline({ low, high, width, height, share }: OutlineProps) {
  const palette = usePalette()
  const path = unstable_createElement('path', { d: draw({ low, high }), fill: palette.waterInk })
  return unstable_createElement('svg', {
    width,
    height: Math.max(2, height * share),
    viewBox: `0 0 ${BOX} ${BOX}`,
    preserveAspectRatio: 'none',
    'aria-hidden': true,
    style: { flexShrink: 0 },
    children: path,
  })
})

export function usePicture(audio: AudioHash): Picture | undefined {
  const [came, setCame] = useState<{ readonly audio: AudioHash; readonly picture: Picture }>()
  const drawn = came?.audio === audio ? came.picture : drawnPicture(audio)
  useEffect(() => {
    if (drawn) return undefined
    let gone = false
    audioPicture(audio).then(
      (picture) => !gone && setCame({ audio, picture }),
      () => undefined, // a missing file is named where it is opened
    )
    return () => {
      gone = true
    }
  }, [audio, drawn])
  return drawn
}

const outlines = new WeakMap<Picture, string>()

function outlineOf(picture: Picture): string {
  let outline = outlines.get(picture)
  if (outline === undefined) {
    outline = draw(picture)
    outlines.set(picture, outline)
  }
  return outline
}

function draw({ low, high }: Pick<Picture, 'low' | 'high'>): string {
  let peak = 1e-4
  for (let i = 0; i < high.length; i++) peak = Math.max(peak, Math.abs(high[i]), Math.abs(low[i]))
  const x = (i: number) => Math.round((i / (high.length - 1)) * BOX)
  const y = (value: number) => Math.round(BOX / 2 - (value / peak) * (BOX / 2 - 3))
  let path = ''
  for (let i = 0; i < high.length; i++) path += `${i === 0 ? 'M' : 'L'}${x(i)} ${y(Math.max(high[i], 0.02 * peak))}`
  for (let i = low.length - 1; i >= 0; i--) path += `L${x(i)} ${y(Math.min(low[i], -0.02 * peak))}`
  return `${path}Z`
}
