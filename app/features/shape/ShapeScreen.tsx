import { router } from 'expo-router'
import { View } from 'react-native'

import { useKit, useKitId } from '../../kit-view'
import { padName, useChosenPad } from '../../kit-view/use-kit'
import { Button } from '../../ui/controls/Button'
import { Text } from '../../ui/layout/Text'
import { ShapeBench } from './ShapeBench'

/** Where one pad's sound is shaped, on its tide chart. */
export function ShapeScreen() {
  const kit = useKit()
  const chosen = useChosenPad()
  if (!kit) return null
  if (!chosen || chosen.pad.bands.every((band) => band.turns.length === 0)) return <NothingToShape />
  return <ShapeBench key={chosen.pad.id} kit={chosen.kit} pad={chosen.pad} />
}

function NothingToShape() {
  const kitId = useKitId()
  const chosen = useChosenPad()
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 24 }}>
      <Text look="heading">{chosen ? `${padName(chosen.kit, chosen.pad)} is empty` : 'No pad to shape yet'}</Text>
      <Text tone="muted" style={{ textAlign: 'center', maxWidth: 340 }}>
        Put clips on it first, or strike another pad below.
      </Text>
      <Button label="To the Board" kind="main" onPress={() => router.navigate(`/kit/${kitId}/board`)} />
    </View>
  )
}
