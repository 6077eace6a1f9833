import type { Kit, Source } from '@heliaster/core/kit'
import { memo, useMemo } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { notify } from '../../../ui/layout/notices'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { editKit } from '../../../kit-view'
import { updateEdits } from '../send/send-hits'
import type { CutHit } from './use-source-cut'

/** When hits that pads play have been moved since, one tap brings the pads to them. */
export const UpdateOffer = memo(function UpdateOffer({
  kit,
  source,
  hits,
}: {
  readonly kit: Kit
  readonly source: Source
  readonly hits: readonly CutHit[]
}) {
  const palette = usePalette()
  const edits = useMemo(() => updateEdits(kit, source, hits), [kit, source, hits])
  const pads = new Set(edits.flatMap((edit) => ('padId' in edit ? [edit.padId] : []))).size
  if (pads === 0) return null
  const words = pads === 1 ? '1 pad plays a hit as it was before' : `${pads} pads play hits as they were before`
  return (
    <View
      role="status"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        paddingHorizontal: 16,
        paddingVertical: 4,
        backgroundColor: palette.kelpWash,
      }}
    >
      <Text look="small" style={{ flex: 1 }}>
        {words}
      </Text>
      <Button
        label={pads === 1 ? 'Update it' : 'Update them'}
        onPress={() => {
          editKit(kit.id, edits)
          notify(pads === 1 ? '1 pad plays the hit as it is now.' : `${pads} pads play the hits as they are now.`)
        }}
      />
    </View>
  )
})
