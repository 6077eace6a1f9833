import { keyOfPlace, movedFirst, printedOn } from '@heliaster/core/hands'
import type { Kit } from '@heliaster/core/kit'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import { KEYS, handSettings } from './hand-settings'
import { letGoAll, letGoByHand, strikeByHand } from './hands'

const MIDDLE = 92
const LOUD = 124
const SOFT = 48

interface KeysState {
  /** The pad that the first key strikes: rows of pads are gone through by two keys. */
  readonly first: number
  /** What is printed on keys, as far as the browser tells or they were pressed. */
  readonly printed: Readonly<Record<string, string>>
}

export const keysState = createStore<KeysState>(() => ({ first: 0, printed: {} }))

/** What a key is called on this keyboard. */
export function keyName(code: string, { printed } = keysState.getState()): string {
  return printed[code] ?? printedOn(code)
}

/** The key that strikes the pad of a place, by name, told anew when keys change. */
export function useKeyLabel(place: number): string | undefined {
  const keys = useStore(handSettings, (state) => state.keys)
  const state = useStore(keysState)
  const code = keyOfPlace(keys, place, state.first)
  return code && keyName(code, state)
}

/** Fields that take no letters: a switch that was pressed keeps the focus, and the keys play on. */
const NOT_TYPED: readonly string[] = ['checkbox', 'radio', 'range', 'button', 'submit', 'file', 'color']

/** Whether someone is typing, so that letters are letters. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target instanceof HTMLInputElement) return !NOT_TYPED.includes(target.type)
  return /^(TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable === true
}

type KeyListener = (code: string) => void
let listener: KeyListener | undefined

/** The next key that is pressed is told instead of played. Returns the way to stop. */
export function onNextKey(told: KeyListener): () => void {
  listener = (code) => {
    listener = undefined
    told(code)
  }
  const own = listener
  return () => {
    if (listener === own) listener = undefined
  }
}

/** Strikes pads from the computer's keys; Shift is loud, Alt is soft. Returns the way to stop. */
export function connectKeys(kitNow: () => Kit | undefined): () => void {
  const down = (event: KeyboardEvent) => {
    if (event.repeat || event.ctrlKey || event.metaKey || isTyping(event.target)) return
    if (event.key.length === 1 && !event.shiftKey && !event.altKey) notePrinted(event.code, event.key)
    if (listener && event.key !== 'Escape' && event.key !== 'Tab') {
      event.preventDefault()
      return listener(event.code)
    }
    if (take(event, kitNow())) event.preventDefault()
  }
  const up = (event: KeyboardEvent) => letGoByHand(KEYS, event.code)
  const blur = () => letGoAll(KEYS) // the page is not told of keys that come up elsewhere
  window.addEventListener('keydown', down)
  window.addEventListener('keyup', up)
  window.addEventListener('blur', blur)
  void readPrinted()
  keysState.setState({ first: 0 })
  return () => {
    window.removeEventListener('keydown', down)
    window.removeEventListener('keyup', up)
    window.removeEventListener('blur', blur)
    letGoAll(KEYS)
  }
}

/** Lets a key act; returns whether it did anything. */
function take(event: KeyboardEvent, kit: Kit | undefined): boolean {
  const does = handSettings.getState().keys[event.code]
  if (does === undefined || !kit) return false
  const { first } = keysState.getState()
  if (typeof does !== 'number') {
    const moved = movedFirst(first, does === 'rowAfter' ? 1 : -1, kit.arrangement.columns, kit.pads.length)
    keysState.setState({ first: moved })
    return true
  }
  const pad = kit.pads[does + first]
  if (!pad) return false
  const came = event.shiftKey ? LOUD : event.altKey ? SOFT : MIDDLE
  strikeByHand({ input: KEYS, key: event.code, padIds: [pad.id], came, atMs: event.timeStamp })
  return true
}

function notePrinted(code: string, key: string): void {
  const sign = key.toUpperCase()
  const { printed } = keysState.getState()
  if (printed[code] !== sign && sign.trim() !== '') keysState.setState({ printed: { ...printed, [code]: sign } })
}

/** Some browsers tell what is printed on all keys, of whatever country. */
async function readPrinted(): Promise<void> {
  const { keyboard } = navigator as { keyboard?: { getLayoutMap?(): Promise<Iterable<[string, string]>> } }
  const map = await keyboard?.getLayoutMap?.().catch(() => undefined)
  if (!map) return
  const told = [...map].map(([code, sign]) => [code, sign.toUpperCase()] as const)
  keysState.setState({ printed: { ...keysState.getState().printed, ...Object.fromEntries(told) } })
}
