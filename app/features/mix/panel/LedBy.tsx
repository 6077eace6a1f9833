import type { Kit } from '@heliaster/core/kit'

import { ledWords } from '../../../kit-view/buses/mix-words'
import { Text } from '../../../ui/layout/Text'

/** Which tillers lead something of a bus or an effect: what is set there is where they set out from. */
export function LedBy({ kit, id }: { readonly kit: Kit; readonly id: string }) {
  const words = ledWords(kit, id)
  if (words.length === 0) return null
  return (
    <Text look="small" tone="muted">
      {words.join(' ')}
    </Text>
  )
}
