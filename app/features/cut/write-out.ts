import type { Source } from '@heliaster/core/kit'

import { decodedAudio } from '../../audio/audio-files'
import { keepMade } from '../../audio/import'
import { measureLater } from '../../audio/measure-later'
import { coreWork } from '../../audio/workers'
import { clipOfHit, hitTitle } from './hit-clip'
import type { CutHit } from './use-source-cut'

/**
 * Hits with all their repairs as files of their own, on the list in Gather; the recording stays as it is. Returns what
 * came of it, in words.
 */
export async function writeOut(source: Source, items: readonly CutHit[]): Promise<string> {
  let written = 0
  try {
    const { audio } = await decodedAudio(source.audio)
    for (const [i, { marker, hit }] of items.entries()) {
      if (!hit) continue
      const made = await coreWork().clipAudio(audio, clipOfHit(source, marker, hit))
      const name = marker.name ?? `${source.name} ${hitTitle(marker, hit, i)}`
      measureLater(await keepMade(made, name.slice(0, 200), { family: hit.family, tags: ['written out'] }))
      written++
    }
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error)
    return `${written} of ${items.length} were written out, then: ${reason}`
  }
  return written === 1 ? 'One new file is on the list in Gather.' : `${written} new files are on the list in Gather.`
}
