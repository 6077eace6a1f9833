import type { Kit, Pad } from '@heliaster/core/kit'
import { View } from 'react-native'

import { DrumTablePart } from './DrumTablePart'
import { LeansOn } from './LeansOn'
import { Spots } from './Spots'

/** What a pad is of a larger drum: one of its spots, and whose settings it takes. */
export function DrumPart({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  return (
    <View style={{ gap: 18 }}>
      <Spots kit={kit} pad={pad} />
      <DrumTablePart kit={kit} pad={pad} />
      <LeansOn kit={kit} pad={pad} />
    </View>
  )
}
