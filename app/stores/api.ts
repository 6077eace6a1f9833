import type { ApiError } from '@heliaster/core/kit'
import { CHUNK_BYTES } from '@heliaster/core/kit'

/** The server cannot be reached, or cannot reach its database: try again later. */
export class ServerAway extends Error {}
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

/** Reads an answer of any route, or throws what went wrong as one of two kinds. */
export async function answerOf<T>(request: Promise<Response>): Promise<T> {
  let response: Response
  try {
    response = await request
  } catch {
    throw new ServerAway('The server cannot be reached.')
  }
  if (response.ok) return (await response.json()) as T
  const body = (await response.json().catch(() => undefined)) as ApiError | undefined
  const { code, message, details } = body?.error ?? {
    code: 'failed',
    message: 'The server gave an answer that cannot be read.',
    details: undefined,
  }
  if (response.status >= 500 || code === 'failed') throw new ServerAway(message)
  throw new ServerRefused(response.status, code, message, details)
}

/** A request to the server; documents of either kind go by the same paths. */
export function send(method: string, path: string, body?: unknown): Promise<Response> {
  const json = body === undefined ? undefined : JSON.stringify(body)
  return fetch(`/api/${path}`, { method, body: json, headers: json ? { 'content-type': 'application/json' } : undefined })
}

/** Uploads a file in chunks, leaving out those the server has. */
export async function uploadAudio(hash: string, name: string, bytes: Blob): Promise<void> {
  const state = await answerOf<{ state: string; have: number[] }>(
    send('POST', `audio/${hash}`, { bytes: bytes.size, name: name.slice(0, 255) }),
  )
  if (state.state === 'ready') return
  const have = new Set(state.have)
  for (let place = 0; place * CHUNK_BYTES < bytes.size; place++) {
    if (have.has(place)) continue
    const chunk = bytes.slice(place * CHUNK_BYTES, (place + 1) * CHUNK_BYTES)
    await answerOf(
      fetch(`/api/audio/${hash}/chunks/${place}`, { method: 'PUT', body: chunk, headers: { 'content-type': 'application/octet-stream' } }),
    )
  }
  await answerOf(send('POST', `audio/${hash}/finish`))
}
