import type { BandId } from '@heliaster/core/kit'
import { Pressable, View } from 'react-native'

import { useSwapPlace } from '../../../../ui/pointer/Swapping'
import { Text } from '../../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../../ui/theme/theme'

interface Props {
  readonly id: BandId
  /** From 1, as people count. */
  readonly band: number
  readonly isEmpty: boolean
  /** In px. */
  readonly size: number
  readonly onRecord: () => void
}

/** Behind the last turn of a band: one more is recorded here, and a cell dropped here becomes its last. */
export function BandEnd({ id, band, isEmpty, size, onRecord }: Props) {
  const palette = usePalette()
  const { ref, isOver } = useSwapPlace(id)
  return (
    <View ref={ref} style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
      {isEmpty && (
        <Text look="small" tone="muted">
          empty: strikes here are silent
        </Text>
      )}
      <Pressable
        role="button"
        aria-label={`Record onto band ${band}`}
        onPress={onRecord}
        style={{
          width: Math.max(TOUCH, size),
          height: size,
          alignItems: 'center',
          justifyContent: 'center',
          borderRadius: 6,
          borderWidth: isOver ? 2 : 0,
          borderColor: palette.kelp,
        }}
      >
        <View style={{ width: 14, height: 14, borderRadius: 7, borderWidth: 2, borderColor: palette.coral }} />
      </Pressable>
    </View>
  )
}
