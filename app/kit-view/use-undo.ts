import { usePathname } from 'expo-router'
import { useEffect } from 'react'
import { useStore } from 'zustand'

import { isTyping } from '../audio/playing/hands/computer-keys'
import { kits, sources } from '../documents'
import { library, redoLibrary, undoLibrary } from '../documents/library'
import { useSession } from './session'
import { useKitId } from './use-kit'

/** Undo is that of what is being worked on: the list of sounds in Gather, the recording in Cut, the kit elsewhere. */
export function useUndo() {
  const kitId = useKitId()
  const path = usePathname()
  const sourceId = useSession((state) => state.sourceId)
  const ofKit = useStore(kits.store, (state) => state.entries[kitId]?.history)
  const ofSource = useStore(sources.store, (state) => (sourceId ? state.entries[sourceId]?.history : undefined))
  const ofLibrary = useStore(library)
  const on = path.endsWith('/cut') ? 'source' : path.endsWith('/gather') ? 'library' : 'kit'
  const history = { source: ofSource, library: ofLibrary, kit: ofKit }[on]
  const run = (way: 'undo' | 'redo') => {
    if (on === 'library') void (way === 'undo' ? undoLibrary() : redoLibrary())
    else if (on === 'kit') kits[way](kitId)
    else if (sourceId) sources[way](sourceId)
  }
  return {
    undo: () => run('undo'),
    redo: () => run('redo'),
    where: { source: ' in this recording', library: ' in the list of sounds', kit: '' }[on],
    canUndo: (history?.past.length ?? 0) > 0,
    canRedo: (history?.future.length ?? 0) > 0,
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
