import { STRIKE_WINDOW_SECONDS } from '@heliaster/core/audio'
import type { AudioHash, Source } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'

import { audioPicture } from '../../audio/files/audio-files'

export type LoudnessOf = ReadonlyMap<AudioHash, number>

/** Loudness of files, dB; those that were never measured are measured now, and are not in the map until then. */
export function useLoudness(chosen: readonly Source[]): LoudnessOf {
  const [loudness, setLoudness] = useState<LoudnessOf>(new Map())
  useEffect(() => {
    let gone = false
    void Promise.all(chosen.map(async (source) => [source.audio, await loudnessOf(source)] as const))
      .then((pairs) => !gone && setLoudness(new Map(pairs)))
      .catch(() => undefined)
    return () => {
      gone = true
    }
  }, [chosen])
  return loudness
}

/** What was measured otherwise once is measured anew, so that all are told by one measure. */
async function loudnessOf({ audio, measured }: Source): Promise<number> {
  if (measured?.windowSeconds === STRIKE_WINDOW_SECONDS) return measured.loudnessDb
  return (await audioPicture(audio)).measured.loudnessDb
}
