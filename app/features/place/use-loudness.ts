import type { AudioHash, Source } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'

import { audioPicture } from '../../audio/audio-files'

export type LoudnessOf = ReadonlyMap<AudioHash, number>

/** Loudness of files, dB; those that were never measured are measured now, and are not in the map until then. */
export function useLoudness(chosen: readonly Source[]): LoudnessOf {
  const [loudness, setLoudness] = useState<LoudnessOf>(new Map())
  useEffect(() => {
    let gone = false
    void Promise.all(
      chosen.map(
        async (source) => [source.audio, source.measured?.loudnessDb ?? (await audioPicture(source.audio)).measured.loudnessDb] as const,
      ),
    )
      .then((pairs) => !gone && setLoudness(new Map(pairs)))
      .catch(() => undefined)
    return () => {
      gone = true
    }
  }, [chosen])
  return loudness
}
