import type { z } from 'zod'

import { wholeKitSchema } from './kit'
import type { Kit } from './kit'
import { SOURCE_VERSION, sourceSchema } from './source'
import type { Source } from './source'
import { START_VERSION, startSchema } from './start'
import type { Start } from './start'
import { tidied } from './tidy'
import { KIT_VERSION } from './version'

export type Read<Doc> = { readonly ok: true; readonly value: Doc } | { readonly ok: false; readonly message: string }

type Json = Record<string, unknown>
/** Each entry takes a document of its index + 1 to the next version. A saved file of that age tests each. */
const kitUpgrades: ((kit: Json) => Json)[] = []
const sourceUpgrades: ((source: Json) => Json)[] = [
  (source) => ({
    ...source,
    version: 2,
    addedAt: 0,
    origin: /^Recording \d+$/.test(String(source.name)) ? 'recorded' : 'imported',
    favourite: false,
    family: 'other',
    channel: (source.info as { channels?: number } | undefined)?.channels === 1 ? 'left' : 'both',
  }),
]

export function readKit(json: unknown): Read<Kit> {
  const read = readDocument(json, 'heliaster-kit', 'kit', KIT_VERSION, kitUpgrades, wholeKitSchema)
  return read.ok ? { ok: true, value: tidied(read.value) } : read
}

export function readSource(json: unknown): Read<Source> {
  return readDocument(json, 'heliaster-source', 'recording', SOURCE_VERSION, sourceUpgrades, sourceSchema)
}

export function readStart(json: unknown): Read<Start> {
  return readDocument(json, 'heliaster-start', 'start', START_VERSION, [], startSchema)
}

function readDocument<Doc>(
  json: unknown,
  format: string,
  word: string,
  newest: number,
  upgrades: readonly ((doc: Json) => Json)[],
  schema: z.ZodType<Doc>,
): Read<Doc> {
  if (typeof json !== 'object' || json === null || (json as Json).format !== format)
    return { ok: false, message: `This is not a Heliaster ${word}.` }
  let doc = json as Json
  const version = doc.version
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return { ok: false, message: `This ${word} does not say which version it is.` }
  if (version > newest)
    return {
      ok: false,
      message: `This ${word} was made by a newer Heliaster (version ${version}; this one reads up to ${newest}). Update to open it.`,
    }
  for (let at = version; at < newest; at++) doc = upgrades[at - 1]!(doc)
  const parsed = schema.safeParse(doc)
  if (parsed.success) return { ok: true, value: parsed.data }
  const issue = parsed.error.issues[0]!
  return { ok: false, message: `This ${word} is damaged at ${issue.path.join('.') || 'its root'}: ${issue.message}.` }
}
