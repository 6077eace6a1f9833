import {
  apiErrorSchema,
  audioStateSchema,
  batchAnswerSchema,
  CHUNK_BYTES,
  createAnswerSchema,
  documentPageSchema,
  savedDocumentSchema,
} from '@heliaster/core/kit'
import type { DocumentPage, Kind } from '@heliaster/core/kit'
import type { Api } from '@heliaster/server/app'
import { hc } from 'hono/client'
import type { ClientResponse } from 'hono/client'
import type { z } from 'zod'

import type { Outgoing } from './local-db'

/** The server cannot be reached, or cannot reach its database: try again later. */
export class ServerAway extends Error {}
/** Page and server are of different ages: what waits stays here until one of them is brought up to date. */
export class OtherAge extends ServerAway {}
/** The server answered with an error; `code` and `details` are its own. */
export class ServerRefused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: unknown,
  ) {
    super(message)
  }
}

/** No request waits longer for its answer. */
export const REQUEST_MS = 10_000
/** A piece of a file may take longer on its way up: a megabyte over a slow line. */
const CHUNK_MS = 60_000

const unread = 'The server gave an answer that cannot be read. Changes stay on this device; reload the page to try again.'

/** Reads an answer of any route, or throws what went wrong as one of two kinds. */
async function answerOf<Schema extends z.ZodType>(
  schema: Schema,
  request: Promise<ClientResponse<unknown, number>>,
): Promise<z.infer<Schema>> {
  let status: number
  let body: unknown
  try {
    const response = await request
    status = response.status
    body = await response.json()
  } catch {
    throw new ServerAway('The server cannot be reached.')
  }
  if (status >= 200 && status < 300) {
    const parsed = schema.safeParse(body)
    if (!parsed.success) throw new ServerAway(unread)
    return parsed.data
  }
  const parsed = apiErrorSchema.safeParse(body)
  if (!parsed.success) throw new ServerAway(unread)
  const { code, message, details } = parsed.data.error
  if (status >= 500) throw new ServerAway(message)
  if (code === 'olderServer' || code === 'olderPage') throw new OtherAge(message)
  throw new ServerRefused(status, code, message, details)
}

/** What a page asks of the server, typed by the server's own routes; every answer is checked. */
export function createServerApi(fetchOf: typeof fetch, base = '/api') {
  const within = (ms: number) =>
    hc<Api>(base, { fetch: (input: RequestInfo | URL, init?: RequestInit) => fetchOf(input, { ...init, signal: AbortSignal.timeout(ms) }) })
  const client = within(REQUEST_MS)
  const folders = { kit: client.kits, source: client.sources, start: client.starts, performance: client.performances }
  // The routes of all kinds are alike; only the documents differ, and those are checked by their own schemas.
  const folder = (kind: Kind) => folders[kind] as typeof client.kits
  return {
    list: (kind: Kind, query: { after?: string; since?: string }): Promise<DocumentPage> =>
      answerOf(documentPageSchema, folder(kind).$get({ query } as never)),
    find: (kind: Kind, id: string) => answerOf(savedDocumentSchema, folder(kind)[':id'].$get({ param: { id } })),
    create: (kind: Kind, { docId, batchId, edits }: Outgoing) =>
      answerOf(
        createAnswerSchema,
        folder(kind)[':id'].$put({ param: { id: docId }, query: { batch: batchId }, json: edits[0] as object } as never),
      ),
    edit: (kind: Kind, { docId, batchId, edits, version }: Outgoing, baseRevision: number) =>
      answerOf(
        batchAnswerSchema,
        folder(kind)[':id'].edits.$post({ param: { id: docId }, json: { baseRevision, batchId, version, edits } }),
      ),
    hide: (kind: Kind, id: string) => answerOf(anything, folder(kind)[':id'].$delete({ param: { id } })),
    restore: (kind: Kind, id: string) => answerOf(anything, folder(kind)[':id'].restore.$post({ param: { id } })),
    /** Uploads a file in chunks, leaving out those the server has. */
    async uploadAudio(hash: string, name: string, bytes: Blob): Promise<void> {
      const audio = client.audio[':hash']
      const param = { hash }
      const state = await answerOf(audioStateSchema, audio.$post({ param, json: { bytes: bytes.size, name: name.slice(0, 255) } } as never))
      if (state.state === 'ready') return
      const have = new Set(state.have)
      for (let place = 0; place * CHUNK_BYTES < bytes.size; place++) {
        if (have.has(place)) continue
        const body = bytes.slice(place * CHUNK_BYTES, (place + 1) * CHUNK_BYTES)
        const headers = { 'content-type': 'application/octet-stream' }
        const put = within(CHUNK_MS).audio[':hash'].chunks[':place'].$put(
          { param: { hash, place: String(place) } },
          { init: { body, headers } },
        )
        await answerOf(anything, put as Promise<ClientResponse<unknown, number>>)
      }
      await answerOf(anything, audio.finish.$post({ param }))
    },
    /** The stream of changes, for as long as `signal` lasts. */
    changes: (signal: AbortSignal) => fetchOf(`${base}/changes`, { signal }),
  }
}
export type ServerApi = ReturnType<typeof createServerApi>

const anything = { safeParse: (data: unknown) => ({ success: true as const, data }) } as unknown as z.ZodType
