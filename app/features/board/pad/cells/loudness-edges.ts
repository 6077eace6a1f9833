import { valueOf } from '@heliaster/core/kit'
import type { Band } from '@heliaster/core/kit'
import { loudnessEdges } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'

import { asPlayed } from '../../../../audio/files/as-played'
import { decodedAudio } from '../../../../audio/files/audio-files'
import { coreWork } from '../../../../audio/workers/workers'

/** Turns of a band that are listened to; more change its mean little. */
const MOST_TURNS = 6
/** Bands nearer to each other than this were brought to one level, and velocity alone says how loud they are. */
const LEAST_DB = 0.1

/**
 * The bands of a ray at edges set from their measured loudness; undefined where a band has no clip, or
 * where a louder band is hardly louder than a softer one, for then loudness says nothing of velocity.
 */
export async function bandsByLoudness({ ray, bands }: Cells): Promise<Band[] | undefined> {
  const means: number[] = []
  for (const band of bands) {
    const levels: number[] = []
    for (const turn of band.turns.slice(0, MOST_TURNS)) {
      const given = turn.clips[ray.id]
      if (!given || given === 'intendedSilence') continue
      const clip = await asPlayed(given)
      const { audio } = await decodedAudio(clip.audio)
      const loudness = await coreWork().clipLoudness(audio, clip)
      if (Number.isFinite(loudness)) levels.push(loudness + valueOf(band, 'gainDb'))
    }
    if (levels.length === 0) return undefined
    means.push(levels.reduce((sum, level) => sum + level, 0) / levels.length)
  }
  if (means.some((mean, i) => i > 0 && mean < means[i - 1] + LEAST_DB)) return undefined
  const edges = loudnessEdges(means)
  return bands.map((band, i) => ({ ...band, fromVelocity: edges[i] }))
}
