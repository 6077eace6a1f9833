import type { HeardRhythm } from '@heliaster/core/groove/rhythm'
import type { Source } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'

import { coreWork } from '../../../audio/workers/workers'
import type { CutHit } from '../bench/use-source-cut'
import { MOST_ALIKE } from '../bench/use-things'

/** What was struck in a played rhythm and how it goes; undefined until it has been heard, and where it is not asked for. */
export function useRhythm(source: Source, hits: readonly CutHit[], isAsked: boolean): HeardRhythm | undefined {
  const [heard, setHeard] = useState<{ readonly hits: readonly CutHit[]; readonly rhythm: HeardRhythm }>()
  useEffect(() => {
    if (!isAsked || hits.length < 2 || hits.length > MOST_ALIKE) return
    let isGone = false
    const places = hits.map(({ marker, hit }) => ({ onsetFrame: marker.frame, endFrame: hit!.endFrame, peakDb: hit!.peakDb, centreHz: hit!.centreHz })) // prettier-ignore
    void coreWork()
      .rhythm(source.audio, places)
      .then((rhythm) => !isGone && rhythm && setHeard({ hits, rhythm }))
    return () => void (isGone = true)
  }, [source.audio, hits, isAsked])
  return heard?.hits === hits ? heard.rhythm : undefined
}
