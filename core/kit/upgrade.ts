import type { z } from 'zod'

import { wholeKitSchema } from './kit'
import type { Kit } from './kit'
import { SOURCE_VERSION, sourceSchema } from './source'
import type { Source } from './source'
import { START_VERSION, startSchema } from './start'
import { PERFORMANCE_VERSION, performanceSchema } from './performance'
import type { Performance } from './performance'
import type { Start } from './start'
import { tidied } from './tidy'
import { KIT_VERSION } from './version'
import { kitSchema as firstKitSchema } from './version-1/kit'
import type { Kit as FirstKit } from './version-1/kit'
import { startSchema as firstStartSchema } from './version-1/start'
import { upgradedKit, upgradedStart } from './version-1/upgrade'

export type Read<Doc> = { readonly ok: true; readonly value: Doc } | { readonly ok: false; readonly message: string }

type Json = Record<string, unknown>
/** Takes a document of one version to the next; what is damaged is found by the older one's own schema, where it is kept. */
interface Upgrade {
  readonly schema?: z.ZodType
  to(doc: Json): object
}

/** Each entry is for a document of its index + 1. A saved file of that age tests each. */
const kitUpgrades: readonly Upgrade[] = [{ schema: firstKitSchema, to: (kit) => upgradedKit(kit as unknown as FirstKit) }]
const startUpgrades: readonly Upgrade[] = [{ schema: firstStartSchema, to: (start) => ({ ...upgradedStart(start), version: 2 }) }]
const sourceUpgrades: readonly Upgrade[] = [
  {
    to: (source) => ({
      ...source,
      version: 2,
      addedAt: 0,
      origin: /^Recording \d+$/.test(String(source.name)) ? 'recorded' : 'imported',
      favourite: false,
      family: 'other',
      channel: (source.info as { channels?: number } | undefined)?.channels === 1 ? 'left' : 'both',
    }),
  },
  { to: (source) => ({ ...source, version: 3 }) },
]

export function readKit(json: unknown): Read<Kit> {
  const read = readDocument(json, 'heliaster-kit', 'kit', KIT_VERSION, kitUpgrades, wholeKitSchema)
  return read.ok ? { ok: true, value: tidied(read.value) } : read
}

export function readSource(json: unknown): Read<Source> {
  return readDocument(json, 'heliaster-source', 'recording', SOURCE_VERSION, sourceUpgrades, sourceSchema)
}

export function readStart(json: unknown): Read<Start> {
  return readDocument(json, 'heliaster-start', 'start', START_VERSION, startUpgrades, startSchema)
}

export function readPerformance(json: unknown): Read<Performance> {
  return readDocument(json, 'heliaster-performance', 'performance', PERFORMANCE_VERSION, [], performanceSchema)
}

function readDocument<Doc>(
  json: unknown,
  format: string,
  word: string,
  newest: number,
  upgrades: readonly Upgrade[],
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
  const damaged = ({ issues: [issue] }: z.ZodError) => ({
    ok: false as const,
    message: `This ${word} is damaged at ${issue!.path.join('.') || 'its root'}: ${issue!.message}.`,
  })
  for (let at = version; at < newest; at++) {
    const { schema: older, to } = upgrades[at - 1]!
    const held = older?.safeParse(doc)
    if (held && !held.success) return damaged(held.error)
    doc = to(doc) as Json
  }
  const parsed = schema.safeParse(doc)
  return parsed.success ? { ok: true, value: parsed.data } : damaged(parsed.error)
}
