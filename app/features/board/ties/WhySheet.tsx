import { whyWords } from '@heliaster/core/ties'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { recentStrikes } from '../../../kit-view/recent-strikes'
import { Button } from '../../../ui/controls/Button'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'

/** Why each of the last strikes sounded, what stopped by it, and what else stopped anything. */
export function WhySheet({ onClose }: { readonly onClose: () => void }) {
  const palette = usePalette()
  const told = useStore(recentStrikes, (state) => state.told)
  return (
    <Sheet title="The last strikes" isOpen onClose={onClose}>
      {told.length === 0 && <Text tone="muted">Nothing was struck yet. Strike a pad, and what it did is told here.</Text>}
      {told.map((one, place) => {
        const words = 'strike' in one ? whyWords(one.kit, { ...one.strike, why: one.why }) : [one.words]
        return (
          <View key={one.number} style={{ gap: 2, paddingBottom: 10, borderBottomWidth: 1, borderBottomColor: palette.faint }}>
            <Text look="strong">{words[0]}</Text>
            {words.slice(1).map((sentence) => (
              <Text key={sentence} look="small" tone="muted">
                {sentence}
              </Text>
            ))}
            {place === 0 && 'strike' in one && words.length === 1 && (
              <Text look="small" tone="muted">
                It silenced nothing, and nothing stopped by it.
              </Text>
            )}
          </View>
        )
      })}
    </Sheet>
  )
}

/** Opens the list of the last strikes. */
export function WhyButton() {
  const [isOpen, setOpen] = useState(false)
  return (
    <>
      <Button label="Why did that sound, why did that stop?" onPress={() => setOpen(true)} />
      {isOpen && <WhySheet onClose={() => setOpen(false)} />}
    </>
  )
}
