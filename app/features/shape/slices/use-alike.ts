import type { Clip } from '@heliaster/core/kit'
import { stretchesOf } from '@heliaster/core/slices'
import { useEffect, useState } from 'react'

import { decodedAudio } from '../../../audio/files/audio-files'
import { coreWork } from '../../../audio/workers/workers'

const NOBODY: readonly number[][] = []

/** Which slices of a clip sound alike, by their places; none until that is known. */
export function useAlike(clip: Clip): readonly number[][] {
  const frames = stretchesOf(clip).map(({ startFrame, endFrame }) => ({ startFrame, endFrame }))
  const key = JSON.stringify([clip.audio, frames])
  const [held, hold] = useState<{ readonly key: string; readonly groups: readonly number[][] }>()
  useEffect(() => {
    let isGone = false
    if (frames.length < 2) return undefined
    decodedAudio(clip.audio)
      .then(({ audio }) => coreWork().alikeSlices(audio, frames))
      .then(
        (groups) => !isGone && hold({ key, groups }),
        () => undefined, // what is missing is said where the pad is
      )
    return () => void (isGone = true)
  }, [key]) // eslint-disable-line react-hooks/exhaustive-deps -- the key says all of it
  return held?.key === key ? held.groups : NOBODY
}
