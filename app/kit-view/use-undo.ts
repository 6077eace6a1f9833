import { usePathname } from 'expo-router'
import { useEffect, useMemo } from 'react'
import { useStore } from 'zustand'

import { isTyping } from '../audio/playing/hands/computer-keys'
import { kits, performances, sources } from '../documents'
import { nextOf } from '../documents/history'
import type { Ordered } from '../documents/history'
import { library, redoLibrary, undoLibrary } from '../documents/library'
import { notify } from '../ui/layout/notices'
import { useSession } from './session'
import { useKitId } from './use-kit'

/** Where a step was made: in the kit, in one recording or performance, or in the list of sounds. */
type Where =
  | { readonly kind: 'kit' }
  | { readonly kind: 'library' }
  | { readonly kind: 'source' | 'performance'; readonly id: string; readonly name: string }

const RUN = {
  undo: {
    library: undoLibrary,
    kit: (id: string) => kits.undo(id),
    source: (id: string) => sources.undo(id),
    performance: (id: string) => performances.undo(id),
    done: 'Taken back',
  },
  redo: {
    library: redoLibrary,
    kit: (id: string) => kits.redo(id),
    source: (id: string) => sources.redo(id),
    performance: (id: string) => performances.redo(id),
    done: 'Done again',
  },
}

/** Documents of a kind in which something can be taken back or done again. */
function withSteps(
  kind: 'source' | 'performance',
  entries: readonly [id: string, entry: { readonly doc: { readonly name: string }; readonly history?: Ordered }][],
): [Where, Ordered][] {
  return entries.flatMap(([id, { doc, history }]): [Where, Ordered][] =>
    history && history.past.length + history.future.length > 0 ? [[{ kind, id, name: doc.name }, history]] : [],
  )
}

/** One undo: it takes back what was done last, wherever that was, and says so where it is not seen here. */
export function useUndo() {
  const kitId = useKitId()
  const path = usePathname()
  const sourceId = useSession((state) => state.sourceId)
  const ofKit = useStore(kits.store, (state) => state.entries[kitId]?.history)
  const recordings = useStore(sources.store, (state) => state.entries)
  const played = useStore(performances.store, (state) => state.entries)
  const ofLibrary = useStore(library)
  const next = useMemo(() => {
    const ofRecordings = withSteps('source', Object.entries(recordings))
    const ofPlayed = withSteps(
      'performance',
      Object.entries(played).filter(([, { doc }]) => doc.kitId === kitId),
    )
    const here = ofKit ? [[{ kind: 'kit' }, ofKit] as const] : []
    return nextOf<Where>([[{ kind: 'library' }, ofLibrary], ...here, ...ofRecordings, ...ofPlayed])
  }, [ofKit, recordings, played, kitId, ofLibrary])
  const here = path.endsWith('/cut')
    ? 'source'
    : path.endsWith('/gather')
      ? 'library'
      : path.endsWith('/performances')
        ? 'performance'
        : 'kit'
  const isSeen = (where: Where) => where.kind === here && (where.kind !== 'source' || where.id === sourceId)
  const wordsOf = (where: Where | undefined) => {
    if (!where)
      return here === 'source'
        ? ' in this recording'
        : here === 'library'
          ? ' in the list of sounds'
          : here === 'performance'
            ? ' here'
            : ''
    if (where.kind === 'library') return ' in the list of sounds'
    if (where.kind === 'kit') return here === 'kit' ? '' : ' in the kit'
    if (where.kind === 'performance') return ` in the performance ${where.name}`
    return isSeen(where) ? ' in this recording' : ` in the recording ${where.name}`
  }
  const run = (way: 'undo' | 'redo') => {
    const where = next[way]
    if (!where) return
    if (where.kind === 'library') void RUN[way].library()
    else RUN[way][where.kind](where.kind === 'kit' ? kitId : where.id)
    if (!isSeen(where)) notify(`${RUN[way].done}${wordsOf(where)}.`)
  }
  return {
    undo: () => run('undo'),
    redo: () => run('redo'),
    undoWhere: wordsOf(next.undo),
    redoWhere: wordsOf(next.redo),
    canUndo: next.undo !== undefined,
    canRedo: next.redo !== undefined,
  }
}

export function useUndoKeys(): void {
  const { undo, redo } = useUndo()
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || isTyping(event.target)) return
      const key = event.key.toLowerCase()
      if (key !== 'z' && key !== 'y') return
      event.preventDefault()
      if (key === 'y' || event.shiftKey) redo()
      else undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
}
