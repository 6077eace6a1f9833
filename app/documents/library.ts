import type { SourceEdit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { sources } from './index'
import type { DocumentChange } from './documents'
import { nextStamp } from './history'

interface Step {
  undo(): void | Promise<void>
  redo(): void | Promise<void>
}

interface Kept extends Step {
  readonly at: number
  readonly undoneAt?: number
}

interface LibraryHistory {
  readonly past: readonly Kept[]
  readonly future: readonly Kept[]
}

const MOST_STEPS = 100

/** Steps on the list of sounds, many sounds in one step; the cut of one sound has a history of its own. */
export const library = createStore<LibraryHistory>(() => ({ past: [], future: [] }))

export function rememberStep(step: Step): void {
  library.setState(({ past }) => ({ past: [...past.slice(1 - MOST_STEPS), { ...step, at: nextStamp() }], future: [] }))
}

/** Changes many sounds in one step. Changes that change nothing leave none. */
export function editSounds(changes: readonly DocumentChange<SourceEdit>[]): void {
  let back = sources.editMany(changes)
  if (back.length === 0) return
  let forth: DocumentChange<SourceEdit>[] = []
  rememberStep({
    undo: () => void (forth = sources.editMany(back)),
    redo: () => void (back = sources.editMany(forth)),
  })
}

/** Takes sounds off the list in one step. Their audio stays for the kits that use it. */
export async function deleteSounds(ids: readonly string[]): Promise<void> {
  let bringBack = await sources.hideMany(ids)
  rememberStep({
    undo: () => bringBack(),
    redo: async () => void (bringBack = await sources.hideMany(ids)),
  })
}

export async function undoLibrary(): Promise<void> {
  const { past, future } = library.getState()
  const step = past[past.length - 1]
  if (!step) return
  library.setState({ past: past.slice(0, -1), future: [{ ...step, undoneAt: nextStamp() }, ...future] })
  await step.undo()
}

export async function redoLibrary(): Promise<void> {
  const { past, future } = library.getState()
  const [step] = future
  if (!step) return
  library.setState({ past: [...past, step], future: future.slice(1) })
  await step.redo()
}
