import { spanOf } from '@heliaster/core/slices'
import type { SliceSpan } from '@heliaster/core/slices'

import type { SliceKey } from './slice-keys'

export interface KeyPress {
  readonly key: string
  readonly shiftKey: boolean
  readonly altKey: boolean
  readonly ctrlKey: boolean
  readonly metaKey: boolean
  preventDefault(): void
  stopPropagation(): void
}

interface Wave {
  readonly span: SliceSpan
  readonly count: number
  readonly onChoose: (span: SliceSpan) => void
  readonly onKey: (key: SliceKey) => void
  /** Moves what is drawn over the chosen slices by so many steps. */
  readonly onStep: (steps: number) => void
  readonly onHear: () => void
}

const STEPS: Readonly<Record<string, number>> = { ArrowUp: 1, ArrowDown: -1, PageUp: 6, PageDown: -6 }
const COMMANDS: Readonly<Record<string, SliceKey>> = { x: 'cut', c: 'copy', v: 'paste' }

/** What a key does on a wave of slices; undefined where it is none of the wave's. */
function actOf(wave: Wave, { key, shiftKey, altKey, ctrlKey, metaKey }: KeyPress): (() => void) | undefined {
  const way = key === 'ArrowLeft' ? -1 : key === 'ArrowRight' ? 1 : 0
  const isCommand = ctrlKey || metaKey
  const command = isCommand ? COMMANDS[key] : undefined
  if (command) return () => wave.onKey(command)
  if (way !== 0) return () => sideways(wave, way, shiftKey, altKey)
  if (isCommand || altKey) return undefined
  const steps = STEPS[key]
  if (steps !== undefined) return () => wave.onStep(steps)
  if (key === 'Delete' || key === 'Backspace') return () => wave.onKey('clear')
  return key === 'Enter' ? wave.onHear : undefined
}

/** To the next slice; with shift it is taken in, with alt the stretch is moved, with both it is made longer or shorter. */
function sideways({ span, count, onChoose, onKey }: Wave, way: number, isTakingIn: boolean, isMoving: boolean): void {
  if (isMoving && isTakingIn) return onKey(way < 0 ? 'shorter' : 'longer')
  if (isMoving) return onKey(way < 0 ? 'earlier' : 'later')
  const to = Math.max(0, Math.min(count - 1, span.last + way))
  onChoose(isTakingIn ? { first: Math.min(span.first, to), last: Math.max(span.first, to) } : spanOf(to, to))
}

export const keysOfWave = (wave: Wave) => (event: KeyPress) => {
  const act = actOf(wave, event)
  if (!act) return
  event.preventDefault()
  event.stopPropagation()
  act()
}
