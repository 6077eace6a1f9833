import type { Source } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { View } from 'react-native'

import { useKitId } from '../shell'
import { session } from '../shell/session'
import { SourceList } from './SourceList'
import { RecordPanel } from './RecordPanel'
import { usePalette } from '../../ui/theme'
import { useIsWide } from '../../ui/use-is-wide'

/** Where sound comes in: the record button, and the list of what is there. */
export function GatherScreen() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kitId = useKitId()
  const cut = (source: Source) => {
    session.setState({ sourceId: source.id })
    router.navigate(`/kit/${kitId}/cut`)
  }
  if (isWide)
    return (
      <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
        <View style={{ width: 440, borderRightWidth: 1, borderRightColor: palette.faint }}>
          <SourceList onCut={cut} />
        </View>
        <View style={{ flex: 1, justifyContent: 'center' }}>
          <RecordPanel onTaken={cut} />
        </View>
      </View>
    )
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <RecordPanel onTaken={cut} />
      <View style={{ flex: 1, minHeight: 0, borderTopWidth: 1, borderTopColor: palette.faint }}>
        <SourceList onCut={cut} />
      </View>
    </View>
  )
}
