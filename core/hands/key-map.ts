import { z } from 'zod'

/** What a key of the computer does: strikes the pad of a place, or goes to the row of pads before or after. */
const keyDoes = z.union([z.number().int().min(0).max(127), z.enum(['rowBefore', 'rowAfter'])])
export type KeyDoes = z.infer<typeof keyDoes>

/** By the place of a key (`KeyboardEvent.code`), whatever is printed on it. */
export const keyMapSchema = z.record(z.string().max(40), keyDoes)
export type KeyMap = z.infer<typeof keyMapSchema>

/** The keys that can be given something to do, row by row, from the one with numbers down. */
export const KEY_ROWS = [
  ['Digit1', 'Digit2', 'Digit3', 'Digit4', 'Digit5', 'Digit6', 'Digit7', 'Digit8', 'Digit9', 'Digit0', 'Minus', 'Equal'],
  ['KeyQ', 'KeyW', 'KeyE', 'KeyR', 'KeyT', 'KeyY', 'KeyU', 'KeyI', 'KeyO', 'KeyP', 'BracketLeft', 'BracketRight'],
  ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL', 'Semicolon', 'Quote', 'Backslash'],
  ['IntlBackslash', 'KeyZ', 'KeyX', 'KeyC', 'KeyV', 'KeyB', 'KeyN', 'KeyM', 'Comma', 'Period', 'Slash'],
] as const

const bottomUp = [...KEY_ROWS[3].slice(1, 10), ...KEY_ROWS[2].slice(0, 9), ...KEY_ROWS[1].slice(0, 10)]

/** Pads run along the bottom row of letters, then the middle, then the top; the two keys after that go from row to row. */
export const USUAL_KEYS: KeyMap = {
  ...Object.fromEntries(bottomUp.map((code, place) => [code, place])),
  BracketLeft: 'rowBefore',
  BracketRight: 'rowAfter',
}

/** The key that strikes the pad of a place, with pads moved on by `first`. */
export function keyOfPlace(map: KeyMap, place: number, first = 0): string | undefined {
  return Object.keys(map).find((code) => map[code] === place - first)
}

/** The map with a key given something to do; the key that did it before does nothing then. */
export function withKey(map: KeyMap, code: string, does: KeyDoes | undefined): KeyMap {
  const others = Object.entries(map).filter(([own, value]) => own !== code && value !== does)
  return Object.fromEntries(does === undefined ? others : [...others, [code, does]])
}

/** The first pad that keys strike, a row on or back; no further than a row of pads is left. */
export function movedFirst(first: number, rows: number, columns: number, pads: number): number {
  const lastRow = Math.max(0, Math.ceil(pads / columns) - 1) * columns
  return Math.min(lastRow, Math.max(0, first + rows * columns))
}

const SIGNS: Readonly<Record<string, string>> = {
  Comma: ',', Period: '.', Slash: '/', Semicolon: ';', Quote: '\'', Backslash: '\\', BracketLeft: '[', BracketRight: ']',
  Minus: '-', Equal: '=', IntlBackslash: '<',
} // prettier-ignore

/** What is printed on a key where nothing better is known: the signs of an English keyboard. */
export function printedOn(code: string): string {
  return SIGNS[code] ?? code.replace(/^(Key|Digit)/, '')
}
