import { dividingJoin, groupsAfter } from '@heliaster/core/alike'
import type { Join } from '@heliaster/core/alike'
import type { Source } from '@heliaster/core/kit'
import { useEffect, useMemo, useState } from 'react'

import { coreWork } from '../../../audio/workers/workers'
import type { CutHit } from './use-source-cut'

/** More are not compared: all pairs of them would not fit a phone. */
export const MOST_ALIKE = 2000

/** The hits that are one thing, by their places in the list, and how many things there are. */
export interface Things {
  readonly groups: readonly (readonly number[])[]
  /** Another number of things; undefined where there is none. */
  readonly change: (by: number) => (() => void) | undefined
}

/** What was struck, as it is heard: undefined until the hits have been compared. */
export function useThings(source: Source, hits: readonly CutHit[]): Things | undefined {
  const [heard, setHeard] = useState<{ readonly hits: readonly CutHit[]; readonly joins: readonly Join[]; readonly made: number }>()
  useEffect(() => {
    if (hits.length < 2 || hits.length > MOST_ALIKE) return
    let gone = false
    void coreWork()
      .joins(
        source.audio,
        hits.map(({ marker, hit }) => ({ onsetFrame: marker.frame, endFrame: hit?.endFrame ?? marker.frame + 1 })),
      ) // prettier-ignore
      .then((joins) => !gone && joins && setHeard({ hits, joins, made: dividingJoin(joins) }))
    return () => {
      gone = true
    }
  }, [source.audio, hits])
  return useMemo(() => {
    if (!heard || heard.hits !== hits) return undefined
    const change = (by: number) => {
      const made = heard.made - by
      return made < 0 || made > heard.joins.length ? undefined : () => setHeard({ ...heard, made })
    }
    return { groups: groupsAfter(hits.length, heard.joins, heard.made), change }
  }, [heard, hits])
}

export function thingWords(groups: readonly (readonly number[])[]): string {
  const several = groups.filter(({ length }) => length > 1).length
  const struck = groups.length === 1 ? 'One thing was struck' : `${groups.length} things were struck`
  if (several === 0) return `${struck}${groups.length === 1 ? '' : ', each once'}.`
  if (groups.length === 1) return `${struck}, several times.`
  return several === groups.length ? `${struck}, each several times.` : `${struck}; ${several} of them several times.`
}
