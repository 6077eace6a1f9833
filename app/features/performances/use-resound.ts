import type { Performance } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { useStore } from 'zustand'

import { hearing, hearResounded, stopHearing } from '../../audio/performances/hear'
import type { HowHeard } from '../../audio/performances/hear'
import { resound } from '../../audio/performances/resound'
import type { Wanted } from '../../audio/performances/resound'
import { notify } from '../../ui/layout/notices'

/** Sounds performances again: one at a time, each by a name. */
export function useResound() {
  const [busy, setBusy] = useState<string>()
  const heard = useStore(hearing, (state) => state.name)
  useEffect(() => stopHearing, [])
  const hear = async (name: string, wanted: Wanted, how?: HowHeard) => {
    setBusy(name)
    try {
      hearResounded(name, await resound(wanted), how)
    } catch (error) {
      notify(sentenceOf(error))
    } finally {
      setBusy(undefined)
    }
  }
  return { busy, heard, hear, stop: stopHearing }
}

export const sentenceOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))

/** As it was played, or with other clips on the same pads. */
export const asPlayed = (performance: Performance): Wanted => ({ performance, on: { as: 'played' } })
