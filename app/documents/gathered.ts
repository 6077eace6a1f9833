import type { AudioHash, KitId, Source, SourceId } from '@heliaster/core/kit'
import { z } from 'zod'

import { deviceSettings } from '../ui/device/device-settings'

/** Which sounds came in while which kit was open, newest kit last: they are its own even before a pad has them. */
interface Gathered {
  readonly ofKit: Readonly<Record<string, readonly SourceId[]>>
}

const MOST_KITS = 60
const MOST_SOUNDS = 2000

const nothing: Gathered = { ofKit: {} }
export const gathered = deviceSettings(
  'heliaster-gathered',
  z.object({ ofKit: z.record(z.string(), z.array(z.string()).readonly()) }),
  nothing,
)

let openKit: KitId | undefined
/** From now on what comes in comes in for this kit. */
export const gatherFor = (kitId: KitId | undefined): void => void (openKit = kitId)

/** Remembers what has come in for the kit that is open. */
export function noteGathered(ids: readonly SourceId[]): void {
  if (!openKit || ids.length === 0) return
  const { [openKit]: before = [], ...others } = gathered.getState().ofKit
  const kept = Object.entries(others).slice(1 - MOST_KITS)
  gathered.setState({ ofKit: { ...Object.fromEntries(kept), [openKit]: [...before, ...ids].slice(-MOST_SOUNDS) } })
}

/** The sounds of one kit: those that its pads use, and those that came in for it. */
export function soundsOfKit(all: readonly Source[], used: readonly AudioHash[], came: readonly SourceId[] = []): Source[] {
  const [hashes, ids] = [new Set(used), new Set(came)]
  return all.filter(({ id, audio }) => hashes.has(audio) || ids.has(id))
}
