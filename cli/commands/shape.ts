import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, Ray } from '@heliaster/core/kit'
import { readAll, readBundle, writeBundle } from '@heliaster/core/ship'

import { readBytes, writeFile } from '../files'
import { InputFault } from '../input-fault'
import { requiredOption, WrongUsage } from '../main'
import type { Command } from '../main'
import { readWords, sayWords } from './shape-words'

/** Sets what shapes a pad, or one of its rays, and writes the kit anew; without words it says what is set. */
export const shape: Command = {
  options: { pad: { type: 'string' }, ray: { type: 'string' }, out: { type: 'string' } },
  paths: [1, Infinity],
  async run(given) {
    const [path, ...words] = given.paths
    const opened = readBundle(readBytes(path))
    if (!opened.ok) throw new InputFault(`${path}: ${opened.message}`)
    const { kit } = opened.bundle
    const pad = padNamed(kit, requiredOption(given, 'pad'))
    const ray = given.options.ray === undefined ? undefined : rayNamed(kit, pad, String(given.options.ray))
    if (words.length === 0) {
      if (given.options.out !== undefined) throw new WrongUsage('Nothing is to be set; name it as driveDb=12, or leave out --out.')
      for (const word of sayWords(ray ?? pad.own)) console.log(word)
      return
    }
    const out = requiredOption(given, 'out')
    const said = readWords(words, ray ? 'ray' : 'pad')
    const changed = applyEdit(kit, ray ? editOfRay(pad, ray, said) : { type: 'setPad', padId: pad.id, own: said })
    const { audio, missing } = readAll(opened.bundle)
    for (const line of missing) console.error(`${path}: ${line}`)
    writeFile(
      out,
      writeBundle(changed, (hash) => audio.get(hash)),
    )
    console.log(`${words.length} set, written to ${out}`)
  },
}

function editOfRay(pad: Pad, ray: Ray, { values, choices, envelopes }: ReturnType<typeof readWords>): KitEdit {
  const fields = {
    values: { ...ray.values, ...values },
    choices: { ...ray.choices, ...choices },
    envelopes: { ...ray.envelopes, ...envelopes },
  }
  return { type: 'setRay', padId: pad.id, rayId: ray.id, fields }
}

function padNamed(kit: Kit, name: string): Pad {
  const named = kit.pads.filter((pad) => padSettings(kit, pad).name === name)
  if (named.length === 1) return named[0]
  if (named.length > 1) throw new InputFault(`${named.length} pads are named "${name}"; give them names of their own first.`)
  throw new InputFault(`No pad is named "${name}". There are ${kit.pads.map((pad) => `"${padSettings(kit, pad).name}"`).join(', ')}.`)
}

function rayNamed(kit: Kit, pad: Pad, name: string): Ray {
  const ray = pad.rays.find((one) => one.name === name)
  if (ray) return ray
  throw new InputFault(`"${padSettings(kit, pad).name}" has no ray "${name}". It has ${pad.rays.map((one) => `"${one.name}"`).join(', ')}.`)
}
