import type { LiveMarker } from '@heliaster/core/cut'
import { useEffect, useEffectEvent } from 'react'

import { isTyping } from '../../../audio/playing/hands/computer-keys'
import type { CutActions, CutHit } from './use-source-cut'

export interface CutKeys {
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

/** A key with its modifiers: `Shift+ArrowLeft`. */
function nameOf({ key, shiftKey, altKey }: KeyboardEvent): string {
  if (!key.startsWith('Arrow')) return key
  return `${altKey ? 'Alt+' : shiftKey ? 'Shift+' : ''}${key}`
}

const nudged = (byMs: number) => (keys: CutKeys, chosen: CutHit) => keys.actions.nudge(chosen.marker, Math.round((byMs * keys.rate) / 1000))

/** What a key does wherever one is on the bench. */
const ANYWHERE: Readonly<Record<string, (keys: CutKeys) => void>> = {
  ArrowLeft: ({ step }) => step(-1),
  ArrowRight: ({ step }) => step(1),
  'Shift+ArrowLeft': ({ step }) => step(-1),
  'Shift+ArrowRight': ({ step }) => step(1),
  'Alt+ArrowLeft': ({ step }) => step(-1),
  'Alt+ArrowRight': ({ step }) => step(1),
  '+': ({ zoom }) => zoom(0.5),
  '=': ({ zoom }) => zoom(0.5),
  '-': ({ zoom }) => zoom(2),
  '0': ({ toggleZoom }) => toggleZoom(),
  Insert: ({ add }) => add(),
  PageUp: ({ changeHeight }) => changeHeight(),
  PageDown: ({ mark }) => mark(),
  ArrowUp: ({ hearPassage }) => hearPassage(),
}

/** What a key does to the hit that is chosen. */
const TO_CHOSEN: Readonly<Record<string, (keys: CutKeys, chosen: CutHit) => void>> = {
  'Shift+ArrowLeft': nudged(-1),
  'Shift+ArrowRight': nudged(1),
  'Alt+ArrowLeft': ({ actions }, { marker }) => actions.nudge(marker, -1),
  'Alt+ArrowRight': ({ actions }, { marker }) => actions.nudge(marker, 1),
  Delete: ({ remove }, { marker }) => remove(marker),
  Home: ({ actions }, { marker }) => actions.pin(marker),
  ArrowDown: ({ hear }, chosen) => hear(chosen),
  Enter: ({ actions }, { marker }) => actions.setVerdict(marker, 'keep'),
  Backspace: ({ actions }, { marker }) => actions.setVerdict(marker, 'pass'),
}

/** Whether a key belongs to what it was pressed in: a field, a slider, a button. */
function isTaken({ target, key, ctrlKey, metaKey }: KeyboardEvent): boolean {
  const role = (target as HTMLElement).getAttribute?.('role')
  return isTyping(target) || ctrlKey || metaKey || role === 'slider' || (role === 'button' && key === 'Enter')
}

/**
 * Arrows go from hit to hit; with Shift they move the chosen marker by a millisecond, with Alt by a sample. Enter keeps
 * the chosen hit, Backspace passes it, Down hears it again. Page Down marks a passage, Up hears it; Page Up changes the height
 * of the wave.
 */
export function useCutKeys(keys: CutKeys): void {
  const act = useEffectEvent((event: KeyboardEvent) => {
    if (isTaken(event)) return
    const name = nameOf(event)
    const { chosen } = keys
    if (chosen && TO_CHOSEN[name]) TO_CHOSEN[name](keys, chosen)
    else if (ANYWHERE[name]) ANYWHERE[name](keys)
    else return
    event.preventDefault()
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => act(event)
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
