import type { Band, TurnId } from '@heliaster/core/kit'

export interface CellKey {
  readonly key: string
  readonly shiftKey: boolean
  preventDefault(): void
}

/** Louder bands lie above. */
const STEPS: Readonly<Record<string, readonly [bands: number, turns: number]>> = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [1, 0],
  ArrowDown: [-1, 0],
}

/** Arrow keys go from cell to cell; with Shift they swap the cell with the one there, and go along. */
export function onCellKey(event: CellKey, bands: readonly Band[], turnId: TurnId, swap: (one: TurnId, other: TurnId) => void): void {
  const step = STEPS[event.key]
  if (!step) return
  event.preventDefault()
  const band = bands.findIndex(({ turns }) => turns.some(({ id }) => id === turnId))
  const turns = bands[band + step[0]]?.turns ?? []
  const place = bands[band].turns.findIndex(({ id }) => id === turnId) + step[1]
  const other = turns[step[0] === 0 ? place : Math.min(place, turns.length - 1)]
  if (!other) return
  if (!event.shiftKey) return focusCell(other.id)
  swap(turnId, other.id)
  requestAnimationFrame(() => focusCell(turnId)) // at its new place
}

function focusCell(turnId: TurnId): void {
  document.querySelector<HTMLElement>(`[data-turn="${turnId}"]`)?.focus()
}
