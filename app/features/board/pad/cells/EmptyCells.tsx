import { filledPad, lenderOf, padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { View } from 'react-native'

import { Text } from '../../../../ui/layout/Text'
import { usePalette } from '../../../../ui/theme/theme'

/** A pad, or a ray of it, without cells says what it sounds all the same, and what fills it. */
export function EmptyCells({ kit, pad, ray }: { readonly kit: Kit; readonly pad: Pad; readonly ray: string }) {
  const palette = usePalette()
  return (
    <View style={{ borderWidth: 1, borderStyle: 'dashed', borderColor: palette.muted, borderRadius: 8, padding: 20 }}>
      <Text look="small" tone="muted">
        {emptyWords(kit, pad, ray)}
      </Text>
    </View>
  )
}

/** What a pad without cells sounds. */
function emptyWords(kit: Kit, pad: Pad, ray: string): string {
  const lender = lenderOf(kit, pad)
  if (lender)
    return `Empty: as a spot or opening of its drum it sounds as ${padSettings(kit, lender).name || 'an unnamed pad'}, until it has clips of its own.`
  const parts = filledPad(kit, pad).bands.flatMap(({ turns }) => turns).length
  if (parts > 0) {
    const lie = parts === 1 ? 'A part of a recording lies' : `${parts} parts of a recording lie`
    return `${lie} here, drawn under Ties. Clips that are chosen go before.`
  }
  return `Nothing is on ${pad.rays.length > 1 ? ray : 'this pad'}, so it is silent. Choose clips, or send hits here from Cut.`
}
