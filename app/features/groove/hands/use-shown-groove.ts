import { createGroove } from '@heliaster/core/groove'
import type { Groove, GrooveId, Kit } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { useStore } from 'zustand'

import { chosenGroove, grooveState } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'

/** The groove that is seen; an empty one, which is in the kit once it has a bead, where the kit has none. */
export function useShownGroove(kit: Kit): Groove {
  const grooveId = useStore(grooveState, (state) => state.grooveId)
  return useMemo(
    () => chosenGroove(kit, grooveId) ?? { ...createGroove(makeId, 'Groove'), id: `groove-of-${kit.id}`.slice(0, 64) as GrooveId },
    [kit, grooveId],
  )
}
