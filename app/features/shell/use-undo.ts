import { usePathname } from 'expo-router'
import { useEffect } from 'react'

import { isTyping } from '../../audio/computer-keys'
import { kits, sources } from '../../stores/documents'
import { session } from './session'
import { useKitId } from './use-kit'

/** Undo is that of what is being worked on: the recording in Cut, the kit everywhere else. */
export function useUndo() {
  const kitId = useKitId()
  const isOnSource = usePathname().endsWith('/cut')
  const run = (way: 'undo' | 'redo') => {
    const sourceId = session.getState().sourceId
    if (isOnSource && sourceId) sources[way](sourceId)
    else if (!isOnSource) kits[way](kitId)
  }
  return { undo: () => run('undo'), redo: () => run('redo'), isOnSource }
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
