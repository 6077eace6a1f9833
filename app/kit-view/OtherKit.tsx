import type { Kit, KitId } from '@heliaster/core/kit'
import { useState } from 'react'

import { Text } from '../ui/layout/Text'
import { KitChoices } from './KitChoices'
import { useKitById, useOtherKits } from './use-other-kits'
import type { KitToChoose } from './use-other-kits'

interface Props {
  readonly others: readonly KitToChoose[]
  readonly id: KitId | undefined
  /** The kit of that id, once it is here. */
  readonly kit: Kit | undefined
  readonly onChoose: (id: KitId) => void
}

/** Which other kit something is taken from. */
export function OtherKit({ others, id, kit, onChoose }: Props) {
  if (others.length === 0) return <Text tone="muted">There is no other kit yet.</Text>
  return <KitChoices label="Kit" kits={others} id={id} kit={kit} onChoose={onChoose} />
}

/** The other kit that is chosen: where there is one alone, it is that. `onChoose` is told of each choice. */
export function useOtherKit(here: Kit, onChoose: () => void): Props {
  const others = useOtherKits(here.id)
  const [id, setId] = useState<KitId | undefined>(others.length === 1 ? others[0]!.value : undefined)
  const kit = useKitById(id)
  const choose = (chosen: KitId) => {
    onChoose()
    setId(chosen)
  }
  return { others, id, kit, onChoose: choose }
}
