import type { Start } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { useStore } from 'zustand'

import { starts } from '../../documents'

/** Starts that say something about pads, or about cuts, by name. */
export function useStarts(about: 'pad' | 'cut'): Start[] {
  const entries = useStore(starts.store, (state) => state.entries)
  return useMemo(
    () =>
      Object.values(entries)
        .map(({ doc }) => doc)
        .filter((start) => start[about] !== undefined)
        .sort((a, b) => a.name.localeCompare(b.name)),
    [entries, about],
  )
}
