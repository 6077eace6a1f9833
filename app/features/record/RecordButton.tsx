import { Pressable, View } from 'react-native'

import type { RecorderState } from '../../audio/recording/recorder'
import { usePalette } from '../../ui/theme/theme'

interface Props {
  readonly state: RecorderState
  readonly size: number
  readonly stopLabel: string
  readonly onStart: () => void
  readonly onStop: () => void
}

/** The round button: pressed, it records; pressed again, it stops. */
export function RecordButton({ state, size, stopLabel, onStart, onStop }: Props) {
  const palette = usePalette()
  const isRunning = state === 'recording' || state === 'waiting'
  const isBusy = state === 'opening' || state === 'keeping'
  const inner = isRunning ? size * 0.34 : size * 0.75
  return (
    <Pressable
      role="button"
      aria-label={isRunning ? stopLabel : 'Record'}
      aria-busy={isBusy}
      onPress={isRunning ? onStop : onStart}
      disabled={state === 'keeping'}
      style={{
        width: size,
        height: size,
        borderRadius: size / 2,
        borderWidth: 2,
        borderColor: palette.coral,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: palette.surface,
      }}
    >
      <View
        style={{
          width: inner,
          height: inner,
          borderRadius: isRunning ? inner / 6 : inner / 2,
          backgroundColor: palette.coral,
          opacity: state === 'keeping' ? 0.4 : state === 'waiting' ? 0.6 : 1,
        }}
      />
    </Pressable>
  )
}
