import type { Source } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useDeferredValue } from 'react'
import { View } from 'react-native'
import { z } from 'zod'
import { useStore } from 'zustand'

import { useKitId } from '../../kit-view'
import { session } from '../../kit-view/session'
import { SourceList } from './list/SourceListLater'
import { RecordPanel, RescueOffer } from '../record'
import { deviceSettings } from '../../ui/device/device-settings'
import { usePalette } from '../../ui/theme/theme'
import { useIsWide } from '../../ui/layout/use-is-wide'

const panelLooks = deviceSettings(
  'heliaster-slim-recorder',
  z.object({ isSlim: z.boolean() }),
  { isSlim: false },
  {
    older: (text) => ({ isSlim: text === 'yes' }),
  },
)

/** Where sound comes in: the record button, and the list of what is there. */
export function GatherScreen() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kitId = useKitId()
  const isSlim = useStore(panelLooks, (state) => state.isSlim)
  const cut = (source: Source) => {
    session.setState({ sourceId: source.id })
    router.navigate(`/kit/${kitId}/cut`)
  }
  // The place opens first, then the recorder, then the list: three short tasks, not a long one.
  const hasRecorder = useDeferredValue(true, false)
  const hasList = useDeferredValue(hasRecorder, false)
  const list = hasList && <SourceList onCut={cut} />
  const panel = hasRecorder && <RecordPanel onTaken={cut} isSlim={isSlim} onSlim={(next) => panelLooks.setState({ isSlim: next })} />
  const line = { borderColor: palette.faint }
  if (isWide && !isSlim)
    return (
      <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
        <View style={{ width: 480, borderRightWidth: 1, ...line }}>{list}</View>
        <View style={{ flex: 1, justifyContent: 'center' }}>
          <RescueOffer />
          {panel}
        </View>
      </View>
    )
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <RescueOffer />
      {panel}
      <View style={{ flex: 1, minHeight: 0, borderTopWidth: 1, ...line }}>{list}</View>
    </View>
  )
}
