import { router } from 'expo-router'
import { useDeferredValue } from 'react'
import { ScrollView, View } from 'react-native'

import { usePalette } from '../ui/theme/theme'
import { IconButton } from '../ui/controls/Button'
import { Text } from '../ui/layout/Text'
import { useIsWide } from '../ui/layout/use-is-wide'
import { PadFace } from '../kit-view/PadFace'
import { useSession } from '../kit-view/session'
import { useKit, useKitId } from '../kit-view/use-kit'

/** As many as a screen shows; the rest of a large kit comes right after. */
const FIRST_PADS = 18

/** The pads in one line, in every place, since people judge by ear while they edit. */
export function PadStrip() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kit = useKit()
  const kitId = useKitId()
  const padId = useSession((state) => state.padId)
  const shown = useDeferredValue(Infinity, FIRST_PADS)
  if (!kit) return null
  const size = isWide ? 56 : 48
  const gap = isWide ? 20 : 14
  return (
    <View role="region" aria-label="Pads" style={{ borderTopWidth: 1, borderTopColor: palette.faint, height: size + (isWide ? 42 : 28) }}>
      {kit.pads.length === 0 ? (
        <View style={{ flex: 1, justifyContent: 'center', paddingHorizontal: 20 }}>
          <Text look="small" tone="muted" onPress={() => router.navigate(`/kit/${kitId}/gather`)}>
            No pads yet. Record something, cut it, and send the hits here.
          </Text>
        </View>
      ) : (
        <ScrollView
          horizontal
          showsHorizontalScrollIndicator={false}
          contentContainerStyle={{ paddingHorizontal: 12, gap, alignItems: 'center' }}
        >
          <View style={{ alignItems: 'center', marginTop: isWide ? -14 : 0 }}>
            <IconButton
              name="hand-back-left-outline"
              label="Hands: keys, notes and MIDI"
              onPress={() => router.navigate(`/kit/${kitId}/hands`)}
            />
            <Text look="label" tone="muted" aria-hidden style={{ fontSize: 11, lineHeight: 14 }}>
              Hands
            </Text>
          </View>
          {kit.pads.slice(0, shown).map((pad, index) => (
            <PadFace key={pad.id} kit={kit} pad={pad} index={index} size={size} chosen={pad.id === padId} withKey={isWide} />
          ))}
        </ScrollView>
      )}
    </View>
  )
}
