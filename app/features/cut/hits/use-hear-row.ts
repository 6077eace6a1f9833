import type { Source } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'

import { hearClip } from '../../../audio/engine/sound'
import { notify } from '../../../ui/layout/notices'
import { useLatest } from '../../../ui/pointer/use-element'
import { clipOfHit } from './hit-clip'
import type { CutHit } from '../bench/use-source-cut'

/** Long rings are left for the next hit after this. */
const LONGEST_SECONDS = 2
const PAUSE_SECONDS = 0.08

/** Hits heard one after another as one row, each shown while it sounds. */
export function useHearRow(source: Source, items: readonly CutHit[], onHit: (item: CutHit) => void) {
  const [isHearing, setIsHearing] = useState(false)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const latest = useLatest({ items, onHit, source })
  const stop = () => {
    clearTimeout(timer.current)
    setIsHearing(false)
  }
  const hear = (at: number) => {
    const item = latest.current.items[at]
    if (!item?.hit) return stop()
    latest.current.onHit(item)
    hearClip(clipOfHit(latest.current.source, item.marker, item.hit)).catch((error: Error) => {
      notify(error.message)
      stop()
    })
    timer.current = setTimeout(() => hear(at + 1), (Math.min(LONGEST_SECONDS, item.hit.seconds) + PAUSE_SECONDS) * 1000)
  }
  const toggle = () => {
    if (isHearing) return stop()
    setIsHearing(true)
    hear(0)
  }
  useEffect(() => () => clearTimeout(timer.current), [])
  return { isHearing, toggle }
}
