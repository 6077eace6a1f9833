import type { KitEdit, SourceEdit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { keptSteps, kits, sources } from './index'
import type { DocumentChange } from './documents'
import { nextStamp } from './history'

/** Edits that lead to the other side of a step: back while it is done, forth while it is taken back. */
interface Changed {
  readonly kind: 'changed'
  readonly sounds: DocumentChange<SourceEdit>[]
  readonly kits: DocumentChange<KitEdit>[]
}

/** Sounds that were taken off the list. */
interface Deleted {
  readonly kind: 'deleted'
  readonly ids: readonly string[]
}

export type LibraryStep = (Changed | Deleted) & { readonly at: number; readonly undoneAt?: number }

export interface LibraryHistory {
  readonly past: readonly LibraryStep[]
  readonly future: readonly LibraryStep[]
}

const MOST_STEPS = 100

/** Steps on the list of sounds, many sounds in one step; the cut of one sound has a history of its own. */
export const library = createStore<LibraryHistory>(() => keptSteps.library())

function rememberStep(step: Changed | Deleted): void {
  library.setState(({ past }) => ({ past: [...past.slice(1 - MOST_STEPS), { ...step, at: nextStamp() }], future: [] }))
}

/** Makes the edits, and gives those that lead back. */
function exchanged(step: Pick<Changed, 'sounds' | 'kits'>): Changed {
  return { kind: 'changed', sounds: sources.editMany(step.sounds), kits: kits.editMany(step.kits) }
}

/** Changes many sounds, and kits with them, in one step. Changes that change nothing leave none. */
export function editSounds(sounds: DocumentChange<SourceEdit>[], ofKits: DocumentChange<KitEdit>[] = []): void {
  const back = exchanged({ sounds, kits: ofKits })
  if (back.sounds.length + back.kits.length > 0) rememberStep(back)
}

/** Takes sounds off the list in one step. Their audio stays for the kits that use it. */
export async function deleteSounds(ids: readonly string[]): Promise<void> {
  const listed = ids.filter((id) => id in sources.store.getState().entries)
  if (listed.length === 0) return
  await sources.hideMany(listed)
  rememberStep({ kind: 'deleted', ids: listed })
}

export async function undoLibrary(): Promise<void> {
  const { past, future } = library.getState()
  const step = past[past.length - 1]
  if (!step) return
  const undone = { ...(step.kind === 'changed' ? { ...step, ...exchanged(step) } : step), undoneAt: nextStamp() }
  library.setState({ past: past.slice(0, -1), future: [undone, ...future] })
  if (step.kind === 'deleted') await sources.bringBackMany(step.ids)
}

export async function redoLibrary(): Promise<void> {
  const { past, future } = library.getState()
  const [step] = future
  if (!step) return
  const done = step.kind === 'changed' ? { ...step, ...exchanged(step) } : step
  library.setState({ past: [...past, done], future: future.slice(1) })
  if (step.kind === 'deleted') await sources.hideMany(step.ids)
}
