import { useEffect } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { finishTake, takeState } from '../audio/playing/groove-take'
import { Button } from '../ui/controls/Button'
import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'

/** While strikes of pads are recorded into the groove this line stands in every place; it, and Escape, end it. */
export function TakeBar() {
  const palette = usePalette()
  const { isOn, count } = useStore(takeState)
  useEffect(() => {
    if (!isOn) return undefined
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented) return
      event.preventDefault()
      void finishTake()
    }
    window.addEventListener('keydown', onKey, { capture: true })
    return () => window.removeEventListener('keydown', onKey, { capture: true })
  }, [isOn])
  if (!isOn) return null
  return (
    <View
      role="status"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
        paddingHorizontal: 16,
        paddingVertical: 4,
        backgroundColor: palette.coral,
      }}
    >
      <View style={{ width: 12, height: 12, borderRadius: 6, backgroundColor: palette.onCoral }} />
      <Text look="label" style={{ flex: 1, color: palette.onCoral }}>
        {count === 0
          ? 'Recording into the groove: strike pads'
          : `Recording into the groove: ${count === 1 ? '1 strike' : `${count} strikes`}`}
      </Text>
      <Button label="End" onPress={() => void finishTake()} style={{ backgroundColor: palette.raised }} />
    </View>
  )
}
