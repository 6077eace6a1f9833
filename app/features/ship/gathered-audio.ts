import { audioInUse, originalsInUse } from '@heliaster/core/kit'
import type { AudioHash, Kit } from '@heliaster/core/kit'

import { audioBytes } from '../../audio/files/audio-files'

/** The files that a kit uses, as far as they can be had; with those that they were decoded from once, where asked. */
export async function gatheredAudio(kit: Kit, withOriginals = false): Promise<Map<AudioHash, ArrayBuffer>> {
  const audio = new Map<AudioHash, ArrayBuffer>()
  for (const hash of withOriginals ? [...audioInUse(kit), ...originalsInUse(kit)] : audioInUse(kit)) {
    const bytes = await audioBytes(hash).catch(() => undefined)
    if (bytes) audio.set(hash, bytes)
  }
  return audio
}
