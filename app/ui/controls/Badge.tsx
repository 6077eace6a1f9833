// Renders the elements' Badge.
import ElementsBadge from '@rneui/themed/dist/Badge'

import { fonts, usePalette } from '../theme/theme'
import { Reach } from '../pointer/Reach'

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
          {text}
        </>
      }
      textStyle={{ fontFamily: fonts.strong, fontSize: 13, lineHeight: 17, color: palette.onCoral, paddingHorizontal: 8 }}
      badgeStyle={{ height: HEIGHT, borderRadius: 4, borderWidth: 0, backgroundColor: palette.coral }}
    />
  )
}
