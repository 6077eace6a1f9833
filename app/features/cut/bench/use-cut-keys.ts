import type { LiveMarker } from '@heliaster/core/cut'
import { useEffect, useRef } from 'react'

import { isTyping } from '../../../audio/playing/computer-keys'
import type { CutActions, CutHit } from './use-source-cut'

interface CutKeys {
  step(by: number): void
  add(): void
  zoom(factor: number): void
  toggleZoom(): void
  changeHeight(): void
  mark(): void
  hearPassage(): void
  chosen: CutHit | undefined
  actions: CutActions
  remove(marker: LiveMarker): void
  hear(item: CutHit): void
  rate: number
}

/**
 * Arrows go from hit to hit; with Shift they move the chosen marker by a millisecond, with Alt by a sample. Enter keeps
 * the chosen hit, Backspace passes it, Down hears it again. Page Down marks a passage, Up hears it; Page Up changes the height
 * of the wave.
 */
export function useCutKeys(keys: CutKeys): void {
  const latest = useRef(keys)
  useEffect(() => {
    latest.current = keys
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const role = (event.target as HTMLElement).getAttribute?.('role')
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || role === 'slider' || (role === 'button' && event.key === 'Enter'))
        return
      const { step, add, zoom, toggleZoom, changeHeight, mark, hearPassage, chosen, actions, remove, hear, rate } = latest.current
      const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
      if (way !== 0 && chosen && (event.shiftKey || event.altKey))
        actions.nudge(chosen.marker, way * (event.altKey ? 1 : Math.round(rate / 1000)))
      else if (way !== 0) step(way)
      else if (event.key === '+' || event.key === '=') zoom(0.5)
      else if (event.key === '-') zoom(2)
      else if (event.key === '0') toggleZoom()
      else if (event.key === 'Insert') add()
      else if (event.key === 'PageUp') changeHeight()
      else if (event.key === 'PageDown') mark()
      else if (event.key === 'ArrowUp') hearPassage()
      else if (event.key === 'Delete' && chosen) remove(chosen.marker)
      else if (event.key === 'Home' && chosen) actions.pin(chosen.marker)
      else if (event.key === 'ArrowDown' && chosen) hear(chosen)
      else if (event.key === 'Enter' && chosen) actions.setVerdict(chosen.marker, 'keep')
      else if (event.key === 'Backspace' && chosen) actions.setVerdict(chosen.marker, 'pass')
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
