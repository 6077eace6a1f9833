import { audioInUse } from '@heliaster/core/kit'
import type { AudioHash, Source } from '@heliaster/core/kit'
import { useDeferredValue, useMemo, useRef } from 'react'
import { useStore } from 'zustand'

import { sources } from '../../../documents'
import { gathered, soundsOfKit } from '../../../documents/gathered'
import { useKit } from '../../../kit-view'
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

/** The sounds of the kit that is open; the very same list while its pads use the same files. */
export function useOwnSounds(all: readonly Source[]): readonly Source[] {
  const kit = useKit()
  const came = useStore(gathered, ({ ofKit }) => (kit ? ofKit[kit.id] : undefined))
  const pads = kit?.pads
  const used = useMemo(() => (kit ? audioInUse(kit).join(' ') : ''), [pads]) // eslint-disable-line react-hooks/exhaustive-deps -- pads are what uses files
  return useMemo(() => soundsOfKit(all, used.split(' ') as AudioHash[], came), [all, used, came])
}
