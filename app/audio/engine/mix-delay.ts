import { masterDelayFrames } from '@heliaster/core/engine'

import { kitNow, sound } from './sound'

/** By how much what stands in the whole kit makes everything later, s: a limiter there looks ahead. */
export function mixDelaySeconds(sampleRateHz = sound.getState().player?.sampleRateHz ?? 48000): number {
  const kit = kitNow()
  return kit ? masterDelayFrames(kit, sampleRateHz) / sampleRateHz : 0
}
