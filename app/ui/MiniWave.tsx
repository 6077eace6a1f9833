import type { AudioHash } from '@heliaster/core/kit'
import { memo, useEffect, useState } from 'react'
import { View } from 'react-native'
import Svg, { Path } from 'react-native-svg'

import { audioPicture } from '../audio/audio-files'
import type { Picture } from '../audio/picture'
import { usePalette } from './theme'

interface Props {
  readonly audio: AudioHash
  readonly width: number
  readonly height: number
}

/** A small waveform of a whole file. Its place is kept while it is drawn, so that nothing jumps. */
export const MiniWave = memo(function MiniWave({ audio, width, height }: Props) {
  const palette = usePalette()
  const picture = usePicture(audio)
  return (
    <View style={{ width, height }}>
      {picture && (
        <Svg width={width} height={height} aria-hidden>
          <Path d={outline(picture, width, height)} fill={palette.waterInk} />
        </Svg>
      )}
    </View>
  )
})

export function usePicture(audio: AudioHash): Picture | undefined {
  const [picture, setPicture] = useState<Picture>()
  useEffect(() => {
    let gone = false
    audioPicture(audio).then(
      (drawn) => !gone && setPicture(drawn),
      () => undefined, // a missing file is named where it is opened
    )
    return () => {
      gone = true
    }
  }, [audio])
  return picture
}

function outline({ low, high }: Picture, width: number, height: number): string {
  const peak = Math.max(1e-4, ...high.map(Math.abs), ...low.map(Math.abs))
  const x = (i: number) => ((i / (high.length - 1)) * width).toFixed(1)
  const y = (value: number) => (height / 2 - (value / peak) * (height / 2 - 1)).toFixed(1)
  const top = Array.from(high, (value, i) => `${x(i)} ${y(Math.max(value, 0.01 * peak))}`)
  const bottom = Array.from(low, (value, i) => `${x(i)} ${y(Math.min(value, -0.01 * peak))}`).reverse()
  return `M ${[...top, ...bottom].join(' L ')} Z`
}
