import type { Kit, Pad } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { AskButton } from '../../../ui/controls/AskButton'
import { Button } from '../../../ui/controls/Button'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { editKit } from '../../../kit-view'
import { leftOverByTakingApart, partsOf, takeApartEdits } from '../edits/take-apart'
import type { PadPart } from '../edits/take-apart'

const WORDS: Readonly<Record<PadPart, string>> = { turns: 'turns', bands: 'bands', rays: 'rays' }

/** Turns, bands or rays of a pad onto pads of their own, in one step. */
export function TakeApart({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const [isOpen, setOpen] = useState(false)
  const counts = partsOf(pad)
  const ways = (Object.keys(WORDS) as PadPart[]).filter((by) => counts[by] > 1)
  const take = (by: PadPart) => {
    editKit(kit.id, takeApartEdits(kit, pad, by), pad.id)
    setOpen(false)
  }
  return (
    <>
      <Button label="Take apart" disabled={ways.length === 0} onPress={() => setOpen(true)} />
      <Sheet title="Take the pad apart" isOpen={isOpen} onClose={() => setOpen(false)}>
        <Text look="small" tone="muted">
          The pad keeps the first of them; each other becomes a pad behind it, with all that is set on this one.
        </Text>
        <View style={{ gap: 8 }}>
          {ways.map((by) => (
            <AskButton
              key={by}
              label={`${counts[by]} ${WORDS[by]}, a pad each`}
              warning={leftOverByTakingApart(kit, pad, by)}
              confirm="Take it apart, and leave those out"
              onPress={() => take(by)}
            />
          ))}
        </View>
      </Sheet>
    </>
  )
}
