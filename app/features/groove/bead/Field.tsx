import type { ReactNode } from 'react'
import { View } from 'react-native'

import { IconButton } from '../../../ui/controls/Button'

interface Props {
  readonly children: ReactNode
  /** What is set is no longer so. */
  readonly clears: string
  readonly onClear: () => void
}

/** One thing that a bead carries, with the way to take it off again. */
export function Field({ children, clears, onClear }: Props) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 4 }}>
      <View style={{ flex: 1, minWidth: 0, gap: 4 }}>{children}</View>
      <IconButton name="close-circle-outline" label={clears} onPress={onClear} />
    </View>
  )
}
