import type { Audio } from '@heliaster/core/audio'
import { clipOfSource } from '@heliaster/core/kit'
import type { Clip, Source } from '@heliaster/core/kit'
import { pairsToHear } from '@heliaster/core/place'
import type { Likeness, NamedFile } from '@heliaster/core/place'
import { useEffect, useMemo, useState } from 'react'

import { decodedAudio } from '../../audio/files/audio-files'
import { coreWork } from '../../audio/workers/workers'

interface Listened {
  readonly likeness?: Likeness
  /** Whether files are still being listened to, so that what is read may change. */
  readonly isListening: boolean
}

/** How alike files sound, where their names and lengths leave open which are the same strike; nothing until it is heard. */
export function useLikeness(files: readonly Source[], named: readonly NamedFile[]): Listened {
  const [heard, setHeard] = useState<{ readonly files: readonly Source[]; readonly likeness?: Likeness }>()
  useEffect(() => {
    let gone = false
    hear(files, pairsToHear(named)).then(
      (likeness) => !gone && setHeard({ files, likeness }),
      () => !gone && setHeard({ files }), // what cannot be heard is read by its name alone
    )
    return () => {
      gone = true
    }
    // Loudness, which comes later, changes no pair.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [files])
  const isDone = heard?.files === files
  const asks = useMemo(() => pairsToHear(named).length > 0, [named])
  return { likeness: isDone ? heard.likeness : undefined, isListening: asks && !isDone }
}

async function hear(files: readonly Source[], pairs: readonly [number, number][]): Promise<Likeness | undefined> {
  if (pairs.length === 0) return undefined
  const known = await hearPairs(files, pairs)
  return (file, other) => known.get(`${file} ${other}`)
}

/** How alike pairs of files sound, 0..1, by their places; without those that cannot be compared. */
export async function hearPairs(files: readonly Source[], pairs: readonly [number, number][]): Promise<ReadonlyMap<string, number>> {
  const known = new Map<string, number>()
  for (const [a, b] of pairs) {
    if (known.has(`${a} ${b}`)) continue
    const [one, other] = await Promise.all([a, b].map(async (file) => beginningOf((await decodedAudio(files[file].audio)).audio)))
    if (one.sampleRateHz !== other.sampleRateHz) continue
    const likeness = await coreWork().strikeLikeness(one, clipOf(files[a], one), other, clipOf(files[b], other))
    if (likeness !== undefined) known.set(`${a} ${b}`, likeness)
  }
  return known
}

/** As much as is compared: a worker is sent no more of a long file. */
const HEARD_SECONDS = 0.5

function beginningOf({ sampleRateHz, channels }: Audio): Audio {
  return { sampleRateHz, channels: channels.map((channel) => channel.slice(0, Math.round(HEARD_SECONDS * sampleRateHz))) }
}

function clipOf(source: Source, { channels }: Audio): Clip {
  return { ...clipOfSource(source), endFrame: channels[0].length }
}
