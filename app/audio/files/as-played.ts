import type { Clip } from '@heliaster/core/kit'

import { workedMatter } from '../engine/worked'
import { kitNow } from '../engine/sound'

const isWorked = ({ process }: Clip): boolean => process?.some(({ bypass }) => !bypass) ?? false

/** A clip of what its matter is worked into, in the kit that is open; as it is where nothing is worked. */
export async function asPlayed(clip: Clip): Promise<Clip> {
  const kit = kitNow()
  if (!kit || !isWorked(clip)) return clip
  return (await workedMatter()).workedClip(kit, clip)
}

/** What else than the clip itself says how it is played: the tempo, where its length is in beats. */
export function playedBy(clip: Clip): string {
  const isInBeats = isWorked(clip) && clip.process!.some(({ values }) => (values.beats ?? 0) > 0)
  return isInBeats ? String(kitNow()?.tempoBpm ?? '') : ''
}
