// Renders the elements' Skeleton.
import Skeleton from '@rneui/themed/dist/Skeleton'
import { View } from 'react-native'

import { usePalette } from '../theme/theme'

interface Props {
  /** What is on its way, for who cannot see it. */
  readonly words: string
  readonly rows?: number
  /** Of one row, in px. */
  readonly height?: number
}

/** The place of rows that are still being read; it stands still where motion is unwanted. */
export function Waiting({ words, rows = 3, height = 54 }: Props) {
  const palette = usePalette()
  const isStill = globalThis.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false
  return (
    <View role="status" aria-label={words} aria-busy style={{ gap: 12 }}>
      {Array.from({ length: rows }, (_, row) => (
        <Skeleton
          key={row}
          {...{ 'aria-hidden': true, accessibilityLabel: undefined }}
          animation={isStill ? 'none' : 'pulse'}
          height={height}
          style={{ borderRadius: 8, backgroundColor: palette.faint }}
          skeletonStyle={{ backgroundColor: palette.surface }}
        />
      ))}
    </View>
  )
}
