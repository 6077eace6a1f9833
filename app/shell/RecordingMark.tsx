import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { live } from '../audio/recording/live'
import { recorder, stopTake } from '../audio/recording/recorder'
import { Button } from '../ui/controls/Button'
import { notify } from '../ui/layout/notices'
import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'
import { recordScreens } from '../audio/recording/use-recorder'

/** A recording goes on in every place; away from the record button this line says so, and stops it. */
export function RecordingMark() {
  const palette = usePalette()
  const state = useStore(recorder, (now) => now.state)
  const isSeen = useStore(recordScreens, ({ count }) => count > 0)
  const isShown = (state === 'recording' || state === 'waiting') && !isSeen
  const [seconds, setSeconds] = useState(0)
  useEffect(() => recorder.subscribe(({ news }, before) => news && news !== before.news && notify(news.words)), [])
  useEffect(() => {
    if (!isShown) return undefined
    const timer = setInterval(() => setSeconds(live.seconds), 500)
    return () => clearInterval(timer)
  }, [isShown])
  if (!isShown) return null
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
        paddingHorizontal: 16,
        paddingVertical: 4,
        backgroundColor: palette.coralWash,
      }}
    >
      <View style={{ width: 12, height: 12, borderRadius: 6, backgroundColor: palette.coral }} />
      <Text look="label" style={{ flex: 1 }}>
        {state === 'waiting'
          ? 'Waiting for sound to record'
          : `Recording, ${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`}
      </Text>
      <Button label="Stop" kind="coral" onPress={() => void stopTake()} />
    </View>
  )
}
