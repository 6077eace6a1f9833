import type { Source } from '@heliaster/core/kit'
import { useDeferredValue, useMemo, useRef } from 'react'
import { useStore } from 'zustand'

import { sources } from '../../../documents'
import { useOwnSounds } from '../../../kit-view/own-sounds'
import { kin, useKin } from './kin'
import type { KinQuery } from './kin'
import { libraryView, narrowed, shownSounds } from './library-view'
import type { LibraryView } from './library-view'

/** All sounds; the very same list until one of them changes, whatever is saved meanwhile. */
export function useSounds(): readonly Source[] {
  const entries = useStore(sources.store, (state) => state.entries)
  const last = useRef<readonly Source[]>([])
  const docs = Object.values(entries).map((entry) => entry.doc)
  if (docs.length !== last.current.length || docs.some((doc, i) => doc !== last.current[i])) last.current = docs
  return last.current
}

interface ShownSounds {
  readonly all: readonly Source[]
  /** Those of the kit that is open. */
  readonly own: readonly Source[]
  readonly shown: readonly Source[]
  readonly view: LibraryView
  /** The sound whose kin is shown. */
  readonly query?: KinQuery
}

export function useShownSounds(): ShownSounds {
  const all = useSounds()
  const view = useStore(libraryView)
  // The sheet it was asked from closes first, and then the list turns: two short tasks, not a long one.
  const { query, way } = useDeferredValue(useStore(kin))
  const isKin = query !== undefined
  const own = useOwnSounds(all)
  const among = view.scope === 'kit' && view.words.trim() === '' && !isKin ? own : all
  const wanted = useMemo(() => (isKin ? narrowed(among, view) : shownSounds(among, view)), [among, view, isKin])
  const near = useKin(wanted, query, way)
  return { all, own, shown: isKin ? near : wanted, view, query }
}
