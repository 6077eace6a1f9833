import type { Clip } from '@heliaster/core/kit'
import type { Amounts } from '@heliaster/core/slices'
import { createStore } from 'zustand/vanilla'

export type Slices = NonNullable<Clip['slices']>

/** What was cut or copied of a lane, with what it counts in: it is laid down on any lane that counts alike. */
export const slicePiece = createStore<{ piece: Amounts; least: number; most: number } | undefined>(() => undefined)
