import { ScrollView, View } from 'react-native'

import { useSession } from '../kit-view/session'
import { TillerSlider } from '../kit-view/TillerSlider'
import { useKit } from '../kit-view/use-kit'
import { useIsWide } from '../ui/layout/use-is-wide'
import { usePalette } from '../ui/theme/theme'

const TILLER_PX = 220

/** The kit's tillers in one line, in every place, where that is wished. */
export function TillerStrip() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kit = useKit()
  const isShown = useSession((state) => state.showsTillers)
  if (!kit || !isShown || kit.tillers.length === 0) return null
  return (
    <View role="region" aria-label="Tillers" style={{ borderTopWidth: 1, borderTopColor: palette.faint }}>
      <ScrollView
        horizontal
        showsHorizontalScrollIndicator={false}
        contentContainerStyle={{ paddingHorizontal: 20, paddingTop: 4, gap: isWide ? 28 : 16 }}
      >
        {kit.tillers.map((tiller) => (
          <View key={tiller.id} style={{ width: TILLER_PX }}>
            <TillerSlider kit={kit} tiller={tiller} />
          </View>
        ))}
      </ScrollView>
    </View>
  )
}
