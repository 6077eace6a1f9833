import { writeStems } from '@heliaster/core/ship'

import { openKit, writeBelow } from '../files'
import { choiceOption, numberOption, requiredOption } from '../main'
import type { Command } from '../main'
import { playedBy } from './groove'

/** A groove or song of a kit as stems that add up to the mix, beside it. What they do not say is told on standard error. */
export const stems: Command = {
  options: {
    groove: { type: 'string' },
    song: { type: 'boolean' },
    laps: { type: 'string' },
    by: { type: 'string' },
    dry: { type: 'boolean' },
    rate: { type: 'string' },
    out: { type: 'string' },
  },
  paths: [1, 1],
  async run(given) {
    const out = requiredOption(given, 'out')
    const by = choiceOption(given, 'by', ['pad', 'bus', 'ray'] as const, 'pad')
    const sampleRateHz = Math.round(numberOption(given, 'rate', 48000, 8000, 192000))
    const { kit, missing, audioOf } = await openKit(given.paths[0])
    for (const line of missing) console.error(`${given.paths[0]}: ${line}`)
    const { what } = playedBy(kit, given)
    const laps = given.options.laps === undefined ? 1 : Number(given.options.laps)
    const written = writeStems(kit, { by, withEffects: given.options.dry !== true, what, laps, sampleRateHz }, audioOf)
    for (const note of written?.notes ?? []) console.error(note)
    for (const file of written?.files ?? []) writeBelow(out, file.path, file.bytes)
    console.log(`${written?.files.length ?? 0} files in ${out}`)
  },
}
