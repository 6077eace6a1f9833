import { router } from 'expo-router'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { kits } from '../../stores/documents'
import { Button } from '../../ui/Button'
import { Text } from '../../ui/Text'

/** Shown while a kit is on its way, and when there is none by this address. */
export function KitMissing() {
  const loaded = useStore(kits.store, (state) => state.loaded)
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 24 }}>
      <Text look="heading">{loaded ? 'This kit is not here' : 'Opening the kit'}</Text>
      {loaded && (
        <>
          <Text look="small" tone="muted" style={{ textAlign: 'center', maxWidth: 380 }}>
            It may have been deleted, or it is on the server and the server cannot be reached just now.
          </Text>
          <Button label="All kits" kind="main" onPress={() => router.navigate('/')} />
        </>
      )}
    </View>
  )
}
