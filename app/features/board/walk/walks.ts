import type { KitId, TurnId } from '@heliaster/core/kit'
import type { Judged } from '@heliaster/core/place'
import { z } from 'zod'

import { deviceSettings } from '../../../ui/device/device-settings'

const judgedSchema = z.object({ verdict: z.enum(['keep', 'redo']), was: z.string() })
const schema = z.object({ kits: z.record(z.string(), z.record(z.string(), judgedSchema)) })

type Walk = Readonly<Record<string, Judged>>

/** What was said of each cell on walks through kits: of this device, so that a long walk goes on tomorrow. */
const nobody: { readonly kits: Readonly<Record<string, Walk>> } = { kits: {} }
export const walks = deviceSettings('heliaster-walks', schema, nobody)

const NOTHING: Walk = {}
export const walkOf = (kitId: KitId) => walks.getState().kits[kitId] ?? NOTHING

export function judge(kitId: KitId, turnId: TurnId, judged: Judged): void {
  const { kits } = walks.getState()
  walks.setState({ kits: { ...kits, [kitId]: { ...kits[kitId], [turnId]: judged } } })
}

/** The walk through a kit begins anew. */
export function forgetWalk(kitId: KitId): void {
  const { [kitId]: _gone, ...kits } = walks.getState().kits
  walks.setState({ kits })
}
