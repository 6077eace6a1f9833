import { router } from 'expo-router'
import { View } from 'react-native'

import { Button } from '../ui/controls/Button'
import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'

/** Shown where an address leads nowhere. */
export function NoSuchPage() {
  const palette = usePalette()
  return (
    <View
      role="main"
      style={{ flex: 1, backgroundColor: palette.paper, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 24 }}
    >
      <Text look="title">No such page</Text>
      <Text tone="muted" style={{ textAlign: 'center', maxWidth: 380 }}>
        Nothing of Heliaster has this address. Your kits and recordings are where they were.
      </Text>
      <Button label="All kits" kind="main" onPress={() => router.replace('/')} />
    </View>
  )
}
