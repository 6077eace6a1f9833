import { View } from 'react-native'
import { useStore } from 'zustand'

import { soloed } from '../audio/engine/sound'
import { Button } from '../ui/controls/Button'
import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'

/** Says that only some pads or rays sound, for nobody should have to look for a forgotten solo. */
export function SoloBar() {
  const palette = usePalette()
  const count = useStore(soloed, ({ pads, rays }) => pads.length + rays.length)
  if (count === 0) return null
  return (
    <View
      role="status"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        paddingHorizontal: 16,
        paddingVertical: 4,
        backgroundColor: palette.coralWash,
      }}
    >
      <Text look="small" style={{ flex: 1 }}>
        {count === 1 ? 'One pad or ray sounds alone' : `${count} pads or rays sound alone`}
      </Text>
      <Button label="Let all sound" onPress={() => soloed.setState({ pads: [], rays: [] })} />
    </View>
  )
}
