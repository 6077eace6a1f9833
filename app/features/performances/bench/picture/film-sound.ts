import type { Performance } from '@heliaster/core/kit'
import { filmSecondsOf, mixedLines } from '@heliaster/core/performance'
import type { LineSound } from '@heliaster/core/performance'

import { resound } from '../../../../audio/performances/resound'

/** What lines of one film sound together, as they were played. Nothing for none. Throws an Error that says what is missing. */
export async function soundOfLines(lines: readonly Performance[]): Promise<LineSound | undefined> {
  const rates = new Set(lines.map(({ sampleRateHz }) => sampleRateHz))
  if (rates.size > 1)
    throw new Error('These lines were played at different sample rates and cannot be heard together. Take them out one by one instead.')
  const sounds: LineSound[] = []
  for (const line of lines) {
    const { audio } = await resound({ performance: line, on: { as: 'played' } })
    sounds.push({ audio, filmSeconds: filmSecondsOf(line) ?? 0 })
  }
  return sounds.length > 0 ? mixedLines(sounds) : undefined
}
