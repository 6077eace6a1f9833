import { router } from 'expo-router'
import { ScrollView, View } from 'react-native'

import { usePalette } from '../../ui/theme'
import { Text } from '../../ui/Text'
import { useIsWide } from '../../ui/use-is-wide'
import { PadFace } from './PadFace'
import { useSession } from './session'
import { useKit, useKitId } from './use-kit'

/** The pads in one line, in every place, since people judge by ear while they edit. */
export function PadStrip() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kit = useKit()
  const kitId = useKitId()
  const padId = useSession((state) => state.padId)
  if (!kit) return null
  const size = isWide ? 56 : 48
  return (
    <View aria-label="Pads" style={{ borderTopWidth: 1, borderTopColor: palette.faint, height: size + (isWide ? 42 : 28) }}>
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
          contentContainerStyle={{ paddingHorizontal: 12, gap: isWide ? 20 : 14, alignItems: 'center' }}
        >
          {kit.pads.map((pad, index) => (
            <PadFace key={pad.id} kit={kit} pad={pad} index={index} size={size} chosen={pad.id === padId} withKey={isWide} />
          ))}
        </ScrollView>
      )}
    </View>
  )
}
