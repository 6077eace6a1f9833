import { createStore } from 'zustand/vanilla'

/** How saving stands. `waiting` counts what the server has yet to hear: steps and audio files. */
export interface SaveState {
  readonly waiting: number
  readonly state: 'saved' | 'saving' | 'away'
  /** Edits that did not fit a newer version and are kept in a list. */
  readonly refused: number
}

export const saveState = createStore<SaveState>(() => ({ waiting: 0, state: 'saving', refused: 0 }))

let wake: (() => void) | undefined

/** Tells the sender that something waits. */
export function noticeOutgoing(count = 1): void {
  saveState.setState(({ waiting, state }) => ({ waiting: waiting + count, state: state === 'away' ? 'away' : 'saving' }))
  wake?.()
}

export function onOutgoing(listener: () => void): void {
  wake = listener
}

let holds = 0

/** Whether sending waits for something heavier, such as an import: what is kept here is sent right after it. */
export const isSendingHeld = (): boolean => holds > 0

/** Lets sending wait until the returned function is called. */
export function holdSending(): () => void {
  holds++
  let held = true
  return () => {
    if (!held) return
    held = false
    holds--
    if (holds === 0) wake?.()
  }
}
