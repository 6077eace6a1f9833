import { MID_WARNING_DB } from '@heliaster/core/audio'
import type { Source } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { View } from 'react-native'

import type { Imported } from '../../../audio/import/import'
import { CHANNEL_CHOICES } from '../../../kit-view/channel-choices'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'
import { setSounds } from '../list/sound-actions'

/** Asked once for all stereo files of an import: what clips take from them. Both stay until something else is chosen. */
export function StereoQuestion({ done }: { readonly done: readonly Imported[] }) {
  const stereo = useMemo(() => done.flatMap((one) => (one.type === 'imported' && one.source.info.channels > 1 ? [one.source] : [])), [done])
  const [channel, setChannel] = useState<Source['channel']>('both')
  if (stereo.length === 0) return null
  const cancelling = stereo.filter((source) => (source.measured?.midLossDb ?? 0) < MID_WARNING_DB)
  return (
    <View style={{ padding: 12, gap: 6 }}>
      <Chips
        label={stereo.length === 1 ? 'One file is stereo. Its clips take' : `${stereo.length} files are stereo. Their clips take`}
        options={CHANNEL_CHOICES}
        value={channel}
        onChoose={(chosen) => {
          setChannel(chosen)
          setSounds(stereo, { channel: chosen })
        }}
      />
      {channel === 'mid' && cancelling.length > 0 && (
        <Text look="small" tone="coral" role="alert">
          {`In ${cancelling.length === 1 ? `“${cancelling[0].name}”` : `${cancelling.length} of them`} left and right cancel: the middle would be thin. Left or right alone is safer.`}
        </Text>
      )}
    </View>
  )
}
