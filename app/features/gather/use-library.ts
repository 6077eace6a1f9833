import type { Source } from '@heliaster/core/kit'
import { useMemo, useRef } from 'react'
import { useStore } from 'zustand'

import { sources } from '../../documents'
import { libraryView, shownSounds } from './library-view'
import type { LibraryView } from './library-view'

/** All sounds; the very same list until one of them changes, whatever is saved meanwhile. */
export function useSounds(): readonly Source[] {
  const entries = useStore(sources.store, (state) => state.entries)
  const last = useRef<readonly Source[]>([])
  const docs = Object.values(entries).map((entry) => entry.doc)
  if (docs.length !== last.current.length || docs.some((doc, i) => doc !== last.current[i])) last.current = docs
  return last.current
}

export function useShownSounds(): { readonly all: readonly Source[]; readonly shown: readonly Source[]; readonly view: LibraryView } {
  const all = useSounds()
  const view = useStore(libraryView)
  const shown = useMemo(() => shownSounds(all, view), [all, view])
  return { all, shown, view }
}
