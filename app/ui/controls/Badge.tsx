// Renders the elements' Badge.
import ElementsBadge from '@rneui/themed/dist/Badge'

import { Text } from '../layout/Text'
import { Reach } from '../pointer/Reach'
import { usePalette } from '../theme/theme'

interface Props {
  readonly text: string
  /** What a press does, in words. */
  readonly label: string
  readonly onPress: () => void
}

const HEIGHT = 25

/** A few words on coral that stay until they are pressed. */
export function Badge({ text, label, onPress }: Props) {
  const palette = usePalette()
  return (
    <ElementsBadge
      onPress={onPress}
      pressableProps={{ role: 'button', 'aria-label': label }}
      value={
        <>
          <Reach width={80} height={HEIGHT} />
          <Text look="label" tone="onCoral" style={{ paddingHorizontal: 8 }}>
            {text}
          </Text>
        </>
      }
      badgeStyle={{ height: HEIGHT, borderRadius: 4, borderWidth: 0, backgroundColor: palette.coral }}
    />
  )
}
