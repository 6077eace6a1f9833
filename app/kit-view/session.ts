import type { PadId, SourceId } from '@heliaster/core/kit'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

/** Parts of what is set of a pad on the Board. */
export type PadPart = 'cells' | 'playing' | 'level' | 'rays' | 'drum'

/** What is being looked at: no document, and gone with the page. */
export interface Session {
  readonly padId?: PadId
  readonly sourceId?: SourceId
  /** What is shown of a pad on the Board: it stays from pad to pad, so that one thing of several is set in a row. */
  readonly padPart: PadPart
  /** The recording that is meant as a rhythm: once it is cut, its pads and its groove are proposed. */
  readonly asRhythm?: SourceId
  /** The pad whose last strike made no sound, and why. */
  readonly silent?: { readonly padId: PadId; readonly why: string }
  /** The cell of each pad that sounded last, and how hard it was struck, 1..127. */
  readonly lit: Readonly<Record<PadId, { band: number; turn: number; at: number; velocity: number }>>
  /** The pads that sound now. */
  readonly sounding: readonly PadId[]
  /** The group that new pads come into. */
  readonly newGroup?: string
  /** Sound a pad again after each gesture. */
  readonly hearsAgain: boolean
  /** Tillers lie beside the pads in every place. */
  readonly showsTillers: boolean
}

export const session = createStore<Session>(() => ({ padPart: 'cells', lit: {}, sounding: [], hearsAgain: true, showsTillers: true }))

export function useSession<T>(select: (session: Session) => T): T {
  return useStore(session, select)
}
