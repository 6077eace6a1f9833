import { padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { swapPads } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/Button'
import { NameField } from '../../../ui/NameField'
import { notify } from '../../../ui/notices'
import { Text } from '../../../ui/Text'
import { editKit } from '../../shell'
import { tuneToNotes } from './tune-to-notes'

const SWAPS = [
  { what: 'clips', label: 'Swap their clips' },
  { what: 'places', label: 'Swap their places' },
  { what: 'notes', label: 'Swap their notes' },
] as const

/** What only several pads can do: be gathered under a name, change with each other, be tuned as a row. */
export function PadsTogether({ kit, pads }: { readonly kit: Kit; readonly pads: readonly Pad[] }) {
  const [isBusy, setBusy] = useState(false)
  const [tuned, setTuned] = useState<string>()
  const groups = [...new Set(pads.map((pad) => padSettings(kit, pad).group ?? ''))]
  const gather = (typed: string) => {
    const group = typed.trim().slice(0, 120)
    const edit = (pad: Pad): KitEdit => ({
      type: 'setPad',
      padId: pad.id,
      own: group ? { group } : {},
      ...(group ? {} : { clear: ['group'] }),
    })
    editKit(kit.id, pads.map(edit))
  }
  const tune = async () => {
    setBusy(true)
    try {
      const { edits, words } = await tuneToNotes(kit, pads)
      editKit(kit.id, edits)
      setTuned(words)
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error))
    }
    setBusy(false)
  }
  return (
    <View style={{ gap: 10 }}>
      <NameField
        label={groups.length > 1 ? 'Group (mixed)' : 'Group'}
        value={groups.length > 1 ? '' : (groups[0] ?? '')}
        placeholder="Choose them as one by a name"
        onName={gather}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {pads.length === 2 &&
          SWAPS.map(({ what, label }) => (
            <Button key={what} label={label} onPress={() => editKit(kit.id, swapPads(kit, pads[0], pads[1], what))} />
          ))}
        {pads.length > 1 && <Button label="Tune each to its note" busy={isBusy} disabled={isBusy} onPress={() => void tune()} />}
      </View>
      {tuned && (
        <Text look="small" role="status">
          {tuned}
        </Text>
      )}
    </View>
  )
}
