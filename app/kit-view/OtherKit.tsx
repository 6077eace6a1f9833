import type { Kit, KitId } from '@heliaster/core/kit'
import { useState } from 'react'

import { Chips } from '../ui/controls/Chips'
import { Text } from '../ui/layout/Text'
import { useKitById, useOtherKits } from './use-other-kits'

interface Props {
  readonly others: readonly { readonly value: KitId; readonly text: string }[]
  readonly id: KitId | undefined
  /** The kit of that id, once it is here. */
  readonly kit: Kit | undefined
  readonly onChoose: (id: KitId) => void
}

/** Which other kit something is taken from; one that only the server has comes. */
export function OtherKit({ others, id, kit, onChoose }: Props) {
  if (others.length === 0) return <Text tone="muted">There is no other kit yet.</Text>
  return (
    <>
      <Chips label="Kit" options={others} value={id} onChoose={onChoose} />
      {id && !kit && <Text tone="muted">It is on its way from the server.</Text>}
    </>
  )
}

/** The other kit that is chosen: where there is one alone, it is that. `onChoose` is told of each choice. */
export function useOtherKit(here: Kit, onChoose: () => void): Props {
  const others = useOtherKits(here)
  const [id, setId] = useState<KitId | undefined>(others.length === 1 ? others[0]!.value : undefined)
  const kit = useKitById(id)
  const choose = (chosen: KitId) => {
    onChoose()
    setId(chosen)
  }
  return { others, id, kit, onChoose: choose }
}
