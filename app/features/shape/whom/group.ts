import type { PadId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import type { Whom } from './target'

/** The pads that are shaped together: they stay so while one of them is struck, and no longer. */
const group = createStore<{ readonly padIds: readonly PadId[] }>(() => ({ padIds: [] }))

/** Whom edits of a pad touch when one comes to it: narrow, unless it is one of several. */
export function firstWhom(padId: PadId): Whom {
  const { padIds } = group.getState()
  return padIds.includes(padId) ? { kind: 'pads', padIds } : { kind: 'pad' }
}

export function keepGroup(whom: Whom): void {
  group.setState({ padIds: whom.kind === 'pads' ? whom.padIds : [] })
}
