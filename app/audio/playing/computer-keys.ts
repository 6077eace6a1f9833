import type { Kit, PadId } from '@heliaster/core/kit'

import { releasePad, strikePad } from '../engine/sound'

/** Keys by their place, whatever is printed on them: pads run along the bottom row, then the middle, then the top. */
export const PAD_KEYS = [
  'KeyZ', 'KeyX', 'KeyC', 'KeyV', 'KeyB', 'KeyN', 'KeyM', 'Comma', 'Period',
  'KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL',
  'KeyQ', 'KeyW', 'KeyE', 'KeyR', 'KeyT', 'KeyY', 'KeyU', 'KeyI', 'KeyO', 'KeyP',
] // prettier-ignore

const MIDDLE = 92
const LOUD = 124
const SOFT = 48

/** What a key is called on its pad. */
export function keyLabel(index: number): string | undefined {
  const code = PAD_KEYS[index]
  if (!code) return undefined
  return code === 'Comma' ? ',' : code === 'Period' ? '.' : code.slice(3)
}

/** Whether someone is typing, so that letters are letters. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable === true)
}

/** Strikes pads from the computer's keys; Shift is loud, Alt is soft. Returns the way to stop. */
export function connectKeys(kitNow: () => Kit | undefined): () => void {
  const held = new Map<string, PadId>()
  const down = (event: KeyboardEvent) => {
    if (event.repeat || event.ctrlKey || event.metaKey || isTyping(event.target)) return
    const pad = kitNow()?.pads[PAD_KEYS.indexOf(event.code)]
    if (!pad) return
    event.preventDefault()
    held.set(event.code, pad.id)
    strikePad({ padId: pad.id, velocity: event.shiftKey ? LOUD : event.altKey ? SOFT : MIDDLE, key: keyNumber(event.code) })
  }
  const up = (event: KeyboardEvent) => {
    const padId = held.get(event.code)
    if (!padId) return
    held.delete(event.code)
    releasePad(padId, keyNumber(event.code))
  }
  window.addEventListener('keydown', down)
  window.addEventListener('keyup', up)
  return () => {
    window.removeEventListener('keydown', down)
    window.removeEventListener('keyup', up)
  }
}

function keyNumber(code: string): number {
  return 1000 + PAD_KEYS.indexOf(code)
}
