import type { Clip, Pad, Ray } from '@heliaster/core/kit'
import { bandsOfRay } from '@heliaster/core/kit'
import { lineUpRays } from '@heliaster/core/place'
import type { Lag, LineUp } from '@heliaster/core/place'

import { decodedAudio } from '../../../../audio/files/audio-files'
import { coreWork } from '../../../../audio/workers/workers'

/** Cells that are listened to; more say nothing new. */
const MOST_CELLS = 12

export interface RayLineUp extends LineUp {
  readonly ray: Ray
  readonly cells: number
}

/** How microphones of one strike, or rays of one cell, lie against the first: measured over many cells. */
export async function measureLineUp(pad: Pad): Promise<RayLineUp[]> {
  const rays = pad.rays.filter((ray) => ray.source.kind === 'clips' && bandsOfRay(pad, ray) === pad.bands)
  const [first, ...others] = rays
  if (!first || others.length === 0) return []
  const turns = pad.bands.flatMap((band) => band.turns)
  const step = Math.max(1, Math.floor(turns.length / MOST_CELLS))
  const cells = turns.filter((turn, i) => i % step === 0 && isClip(turn.clips[first.id]))
  const lags: Lag[][] = [cells.length > 0 ? [{ seconds: 0, correlation: 1 }] : []]
  for (const ray of others) {
    const found: Lag[] = []
    for (const { clips } of cells) {
      const [one, other] = [clips[first.id], clips[ray.id]]
      if (!isClip(one) || !isClip(other)) continue
      const [a, b] = await Promise.all([decodedAudio(one.audio), decodedAudio(other.audio)])
      const lag = await coreWork().lag(a.audio, one, b.audio, other)
      if (lag) found.push(lag)
    }
    lags.push(found)
  }
  return lineUpRays(lags).map((line, i) => ({ ...line, ray: rays[i], cells: lags[i].length }))
}

function isClip(clip: Clip | 'intendedSilence' | undefined): clip is Clip {
  return clip !== undefined && clip !== 'intendedSilence'
}
