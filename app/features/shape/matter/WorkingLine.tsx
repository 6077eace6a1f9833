import { View } from 'react-native'
import { useStore } from 'zustand'

import { stopWorking, working } from '../../../audio/files/worked-sound'
import { Button } from '../../../ui/controls/Button'
import { Progress } from '../../../ui/layout/Progress'
import { Text } from '../../../ui/layout/Text'
import { counted } from './counted'

/** What is being worked, how far it is, and the way to stop it. */
export function WorkingLine() {
  const { waiting, share } = useStore(working)
  if (waiting === 0) return null
  return (
    <View role="status" style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Text look="small" style={{ flex: 1 }}>
          {`Working on ${counted(waiting, 'sound')}: ${Math.round(100 * share)} %`}
        </Text>
        <Button label="Stop the work" icon="stop" onPress={stopWorking} />
      </View>
      <Progress label="How far the work on matter is" share={share} />
    </View>
  )
}
