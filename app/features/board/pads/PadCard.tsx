import { filledPad, lenderOf } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { useSession } from '../../../kit-view'
import { TestStrikes } from '../../../kit-view/TestStrikes'
import { padName } from '../../../kit-view/use-kit'
import { describeFilling, describeMissing } from '../../../kit-view/describe-pad'
import { missingAudio } from '../../../audio/files/audio-files'
import { useStore } from 'zustand'

/** The pad struck last, in one line, struck again at three strengths, and the way on from it. */
export function PadCard({ kit, pad, onOpen }: { readonly kit: Kit; readonly pad: Pad; readonly onOpen: () => void }) {
  const palette = usePalette()
  const lit = useSession((state) => state.lit[pad.id])
  const lender = lenderOf(kit, pad)
  const silent = useSession((state) => (state.silent?.padId === pad.id ? state.silent.why : undefined))
  const missing = useStore(missingAudio, (state) => describeMissing(pad, state))
  const sounded =
    lit && lit.band >= 0 && filledPad(kit, pad).bands.length > 0 ? `band ${lit.band + 1}, turn ${lit.turn + 1} sounded` : undefined
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 10,
        padding: 12,
        paddingLeft: 20,
        borderTopWidth: 1,
        borderTopColor: palette.faint,
        backgroundColor: palette.surface,
      }}
    >
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text look="strong" numberOfLines={1}>
          {padName(kit, pad)}
        </Text>
        <Text look="small" tone={missing ? 'coral' : 'muted'} numberOfLines={missing ? 4 : 3}>
          {missing ?? silent ?? sounded ?? (lender ? `Empty: sounds as ${padName(kit, lender)}` : describeFilling(pad))}
        </Text>
      </View>
      <TestStrikes padId={pad.id} />
      <Button label="Open pad" kind="main" onPress={onOpen} />
    </View>
  )
}
