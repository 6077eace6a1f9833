import { createStore } from 'zustand/vanilla'

/**
 * How saving stands. Three things are told apart: what is in this page's memory alone, what is kept on this device, and
 * what the server has.
 */
export interface SaveState {
  /** Changes in this page's memory alone, with why they could not be written. */
  readonly unkept: number
  readonly failure?: string
  /** What the server has yet to hear: steps and audio files. */
  readonly waiting: number
  readonly state: 'saved' | 'saving' | 'away'
  /** Why the server does not take what waits, where it has said so. */
  readonly why?: string
  /** Edits that did not fit a newer version and are kept in a list. */
  readonly refused: number
  /** Whether the browser has promised to keep what this device holds; unknown until it has been asked. */
  readonly lasting?: boolean
  /** The server's list of kits has been read, or cannot be: what is not known here is known not to be. */
  readonly listed?: boolean
  /** Pages of an older version hold this device's store, so nothing can be read or written. */
  readonly blocked?: boolean
}

export const createSaveState = () => createStore<SaveState>(() => ({ unkept: 0, waiting: 0, state: 'saving', refused: 0 }))
