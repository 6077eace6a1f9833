import { beadsOf, louderBy, stepsOf, stringOf } from '@heliaster/core/groove'
import type { Bead } from '@heliaster/core/kit'

import type { BeadHands, Cursor } from '../hands/use-bead-hands'

interface KeyEvent {
  readonly key: string
  readonly shiftKey: boolean
  readonly altKey: boolean
  readonly ctrlKey?: boolean
  readonly metaKey?: boolean
  preventDefault(): void
}

const WAYS: Record<string, readonly [steps: number, strings: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
/** Keys that, like the arrows, first show where they stand. */
const STANDS_FIRST = ['Enter', 'Home', 'End']
const LOUDER = 5

/**
 * Arrow keys go over the steps, with Shift beads are chosen too, with Alt the chosen ones are moved along or made louder and softer,
 * with both they go to another string; Enter makes a bead or hears it, Delete removes, Escape chooses none.
 */
export function useStringsKeys(hands: BeadHands) {
  return (event: KeyEvent) => {
    const isDone = event.ctrlKey || event.metaKey ? command(hands, event.key.toLowerCase()) : act(hands, event)
    if (isDone) event.preventDefault()
  }
}

/** The bead on which the cursor stands, the first one of its step. */
export function beadAtCursor({ groove, cursor }: Pick<BeadHands, 'groove' | 'cursor'>): Bead | undefined {
  return cursor && stringOf(groove, cursor.padId).beads.find(({ step }) => step === cursor.step)
}

function act(hands: BeadHands, { key, altKey, shiftKey }: KeyEvent): boolean {
  const way = WAYS[key]
  if (way && altKey) return nudge(hands, way, shiftKey)
  if (way) return go(hands, way, shiftKey)
  const { cursor } = hands
  const bead = beadAtCursor(hands)
  if (!cursor && STANDS_FIRST.includes(key)) return go(hands, [0, 0], false)
  if (key === 'Enter' && cursor) {
    if (bead) hands.hear(bead.id, true)
    else hands.put(cursor)
  } else if ((key === 'Home' || key === 'End') && cursor) {
    goTo(hands, { ...cursor, step: key === 'Home' ? 0 : stepsOf(hands.groove, stringOf(hands.groove, cursor.padId)) - 1 }, false)
  } else if ((key === 'Delete' || key === 'Backspace') && hands.chosen.size > 0) hands.remove()
  else if (key === 'Escape' && hands.chosen.size > 0) hands.choose(new Set())
  else return false
  return true
}

function nudge(hands: BeadHands, [steps, strings]: readonly [number, number], isFar: boolean): boolean {
  const { cursor, padIds } = hands
  if (hands.chosen.size === 0) return false
  if (isFar && strings !== 0) hands.move(0, strings)
  else if (strings !== 0) return louder(hands, -strings * LOUDER)
  else hands.move(steps * (isFar ? hands.groove.stepsPerBeat : 1))
  if (cursor) {
    const padId = padIds[padIds.indexOf(cursor.padId) + (isFar ? strings : 0)] ?? cursor.padId
    hands.choose(hands.chosen, { padId, step: Math.max(0, cursor.step + steps * (isFar ? hands.groove.stepsPerBeat : 1)) })
  }
  return true
}

function louder(hands: BeadHands, by: number): boolean {
  hands.slide((before) => louderBy(before, hands.chosen, by))
  hands.done()
  return true
}

function go(hands: BeadHands, [steps, strings]: readonly [number, number], adds: boolean): boolean {
  const { cursor, padIds, groove } = hands
  if (padIds.length === 0) return false
  if (!cursor) goTo(hands, { padId: padIds[0]!, step: 0 }, adds)
  else {
    const padId = padIds[Math.min(padIds.length - 1, Math.max(0, padIds.indexOf(cursor.padId) + strings))]!
    const most = stepsOf(groove, stringOf(groove, padId)) - 1
    goTo(hands, { padId, step: Math.min(most, Math.max(0, cursor.step + steps)) }, adds)
  }
  return true
}

function goTo(hands: BeadHands, cursor: Cursor, adds: boolean): void {
  const bead = beadAtCursor({ groove: hands.groove, cursor })
  hands.choose(new Set([...(adds ? hands.chosen : []), ...(bead ? [bead.id] : [])]), cursor)
}

function command(hands: BeadHands, key: string): boolean {
  if (key === 'a') hands.choose(new Set(beadsOf(hands.groove).map(({ bead }) => bead.id)))
  else if (key === 'c' && hands.chosen.size > 0) hands.copy()
  else if (key === 'x' && hands.chosen.size > 0) {
    hands.copy()
    hands.remove()
  } else if (key === 'v' && hands.copied) hands.paste()
  else return false
  return true
}
