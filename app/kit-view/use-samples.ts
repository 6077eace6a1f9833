import type { Clip } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'

import { decodedAudio } from '../audio/files/audio-files'

/** The samples of a clip's file, of its first channel, once they are here; what is missing is said where its pads are. */
export function useSamples({ audio: hash }: Pick<Clip, 'audio'>): Float32Array | undefined {
  const [held, hold] = useState<{ readonly hash: string; readonly samples: Float32Array }>()
  useEffect(() => {
    let isGone = false
    decodedAudio(hash).then(
      ({ audio }) => !isGone && hold({ hash, samples: audio.channels[0]! }),
      () => undefined,
    )
    return () => void (isGone = true)
  }, [hash])
  return held?.hash === hash ? held.samples : undefined
}
