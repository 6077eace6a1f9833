import type { Source } from '@heliaster/core/kit'
import { useEffect, useEffectEvent, useState } from 'react'

import { hearClip } from '../../../audio/engine/sound'
import { notify } from '../../../ui/layout/notices'
import { clipOfHit } from './hit-clip'
import type { CutHit } from '../bench/use-source-cut'

/** Long rings are left for the next hit after this. */
const LONGEST_SECONDS = 2
const PAUSE_SECONDS = 0.08

/** Hits heard one after another as one row, each shown while it sounds. */
export function useHearRow(source: Source, items: readonly CutHit[], onHit: (item: CutHit) => void) {
  const [at, setAt] = useState<number>()
  /** Sounds one, and says after how long the next one follows; nothing where the row has ended. */
  const hear = useEffectEvent((place: number): number | undefined => {
    const item = items[place]
    if (!item?.hit) return undefined
    onHit(item)
    hearClip(clipOfHit(source, item.marker, item.hit)).catch((error: Error) => {
      notify(error.message)
      setAt(undefined)
    })
    return Math.min(LONGEST_SECONDS, item.hit.seconds) + PAUSE_SECONDS
  })
  useEffect(() => {
    if (at === undefined) return
    const seconds = hear(at)
    const timer = setTimeout(() => setAt(seconds === undefined ? undefined : at + 1), 1000 * (seconds ?? 0))
    return () => clearTimeout(timer)
  }, [at])
  return { isHearing: at !== undefined, toggle: () => setAt(at === undefined ? 0 : undefined) }
}
