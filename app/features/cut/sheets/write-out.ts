import type { Source } from '@heliaster/core/kit'
import { fitGains, fitWords } from '@heliaster/core/ship'
import type { Fit } from '@heliaster/core/ship'

import { decodedAudio } from '../../../audio/files/audio-files'
import { keepMade } from '../../../audio/import/import'
import { measureLater } from '../../../audio/files/measure-later'
import { coreWork } from '../../../audio/workers/workers'
import { clipOfHit, hitTitle } from '../hits/hit-clip'
import type { CutHit } from '../bench/use-source-cut'

/**
 * Hits with all their repairs as files of their own, on the list in Gather; the recording stays as it is. Returns what
 * came of it, in words.
 */
export async function writeOut(source: Source, items: readonly CutHit[], fit: Fit): Promise<string> {
  let written = 0
  let fitted: string | undefined
  try {
    const { audio } = await decodedAudio(source.audio)
    const hits = items.flatMap(({ marker, hit }) => (hit ? [{ marker, hit }] : []))
    const clips = hits.map(({ marker, hit }) => clipOfHit(source, marker, hit))
    const peaks = await Promise.all(clips.map((clip) => coreWork().clipPeak(audio, clip)))
    const gains = fitGains(peaks, fit)
    fitted = fitWords(peaks, fit)
    for (const [k, { marker, hit }] of hits.entries()) {
      const made = await coreWork().clipAudio(audio, { ...clips[k], gainDb: clips[k].gainDb + 20 * Math.log10(gains[k]) })
      const name = marker.name ?? `${source.name} ${hitTitle(marker, hit, source.info.sampleRateHz)}`
      measureLater(await keepMade(made, name.slice(0, 200), { family: hit.family, tags: ['written out'] }))
      written++
    }
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error)
    return `${written} of ${items.length} were written out, then: ${reason}`
  }
  const words = written === 1 ? 'One new file is on the list in Gather.' : `${written} new files are on the list in Gather.`
  return fitted ? `${words} ${fitted}` : words
}
