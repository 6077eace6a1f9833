import { router } from 'expo-router'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { device, kits, saveState } from '../documents'
import { Button } from '../ui/controls/Button'
import { Waiting } from '../ui/layout/Waiting'
import { Text } from '../ui/layout/Text'

/** Shown while a kit is on its way, and when there is none by this address. */
export function KitMissing({ kitId }: { readonly kitId: string }) {
  const isRead = useStore(kits.store, (state) => state.loaded)
  const apart = useStore(kits.store, (state) => state.setApart[kitId])
  const isBlocked = useStore(saveState, (state) => state.blocked)
  const [asked, setAsked] = useState(false)
  // It may be on the server alone: known to be missing only once both have been asked.
  useEffect(() => {
    if (!isRead) return
    const done = () => setAsked(true)
    device.fetchDocument('kit', kitId).then(done, done)
  }, [isRead, kitId])
  const loaded = isRead && asked
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 24 }}>
      <Text look="heading">
        {isBlocked ? 'Close the other tabs' : apart ? 'This kit cannot be read' : loaded ? 'This kit is not here' : 'Opening the kit'}
      </Text>
      {!loaded && !isBlocked && !apart && (
        <View style={{ width: '100%', maxWidth: 560 }}>
          <Waiting words="Opening the kit" rows={2} />
        </View>
      )}
      {loaded && (
        <>
          <Text look="small" tone="muted" style={{ textAlign: 'center', maxWidth: 380 }}>
            {apart
              ? `${apart.reason} It is set apart as it is: tap how saving stands, above, to save it as a file.`
              : 'It may have been deleted, or it is on the server and the server cannot be reached just now.'}
          </Text>
          <Button label="All kits" kind="main" onPress={() => router.navigate('/')} />
        </>
      )}
    </View>
  )
}
