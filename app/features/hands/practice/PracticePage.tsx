import { ScrollView, View } from 'react-native'

import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { PracticeController } from './ControllerLater'

/** The practice controller in a window of its own, beside the one in which the kit is worked on. */
export function PracticePage() {
  const palette = usePalette()
  return (
    <ScrollView role="main" style={{ flex: 1, backgroundColor: palette.paper }} contentContainerStyle={{ padding: 20 }}>
      <View style={{ width: '100%', maxWidth: 560, gap: 16 }}>
        <Text look="title">Practice controller</Text>
        <Text tone="muted">Open a kit in another window of this browser: it is played from here, as from any other input.</Text>
        <PracticeController />
      </View>
    </ScrollView>
  )
}
