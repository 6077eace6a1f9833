import { checkKit, fits, writeOneShots, writeSfz } from '@heliaster/core/ship'

import { openKit, writeBelow } from '../files'
import { InputFault } from '../input-fault'
import { choiceOption, requiredOption, WrongUsage } from '../main'
import type { Command } from '../main'

/** Writes a kit as open files. What the form cannot say is told on standard error. */
export const ship: Command = {
  options: { as: { type: 'string' }, fit: { type: 'string' }, out: { type: 'string' } },
  paths: [1, 1],
  async run(given) {
    const as = choiceOption(given, 'as', ['sfz', 'wav'] as const)
    if (as === 'sfz' && given.options.fit !== undefined)
      throw new WrongUsage('--fit goes with --as wav: SFZ keeps levels beside its files.')
    const fit = choiceOption(given, 'fit', fits, 'together')
    const out = requiredOption(given, 'out')
    const { kit, hasAudio, audioOf } = await openKit(given.paths[0])
    for (const finding of checkKit(kit, hasAudio)) console.error(`${finding.where}: ${finding.message}`)
    if (kit.pads.length === 0) throw new InputFault(`${given.paths[0]}: This kit has no pads, so there is nothing to write.`)
    const shipped = as === 'sfz' ? writeSfz(kit, audioOf) : writeOneShots(kit, audioOf, fit)
    for (const note of shipped.notes) console.error(note)
    for (const file of shipped.files) writeBelow(out, file.path, file.bytes)
    console.log(`${shipped.files.length} files in ${out}`)
  },
}
