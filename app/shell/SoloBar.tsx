import { View } from 'react-native'
import { useStore } from 'zustand'

import { ALL_SOUND } from '../audio/engine/solo'
import { soloed } from '../audio/engine/sound'
import { Button } from '../ui/controls/Button'
import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'

/** Says that only some pads, rays, buses, bands or turns sound, for nobody should have to look for a forgotten solo. */
export function SoloBar() {
  const palette = usePalette()
  const count = useStore(soloed, ({ pads, rays, buses, bands, turns }) => [pads, rays, buses, bands, turns].flat().length)
  const words = useStore(soloed, ({ pads, rays, buses, bands }) => `One ${pads.length ? 'pad' : rays.length ? 'ray' : buses.length ? 'bus' : bands.length ? 'band of its pad' : 'turn of its pad'} sounds alone`) // prettier-ignore
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
        {count === 1 ? words : `${count} sound alone`}
      </Text>
      <Button label="Let all sound" onPress={() => soloed.setState(ALL_SOUND)} />
    </View>
  )
}
