import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import type { Passage } from '../wave/draw-recording'

interface Props {
  readonly passage: Passage
  readonly rate: number
  readonly onHear: () => void
  /** Makes a hit of it, which is chosen. */
  readonly onKeep: () => void
  readonly onSend: () => void
  readonly onClose: () => void
}

/** What can be done with a stretch that was dragged over: heard, made a hit, sent to a pad. */
export function PassageBar({ passage, rate, onHear, onKeep, onSend, onClose }: Props) {
  const palette = usePalette()
  const seconds = (passage.endFrame - passage.startFrame) / rate
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
        paddingLeft: 16,
        paddingRight: 6,
        paddingVertical: 4,
        backgroundColor: palette.kelpWash,
      }}
    >
      <Text look="label" role="status" numberOfLines={1} style={{ flex: 1, minWidth: 0 }}>
        {seconds < 1 ? `${(seconds * 1000).toFixed(1)} ms` : `${seconds.toFixed(2)} s`}
      </Text>
      <Button label="Hear" onPress={onHear} />
      <Button label="Make a hit" onPress={onKeep} />
      <Button label="Send" onPress={onSend} />
      <IconButton name="close" label="Leave the passage" onPress={onClose} />
    </View>
  )
}
