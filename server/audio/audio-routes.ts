import { audioAnnouncementSchema, audioHashSchema, audioTogetherSchema, CHUNK_BYTES, MOST_TOGETHER } from '@heliaster/core/kit'
import { Hono } from 'hono'
import type { Context } from 'hono'

import { apiError, refuse } from '../api-error'
import { readJson } from '../read-json'
import type { AudioRepository } from './audio-repository'

export function audioRoutes(audio: AudioRepository) {
  return new Hono()
    .post('/together', async (c) => {
      const parsed = audioTogetherSchema.safeParse(await readJson(c))
      if (!parsed.success) return refuse(422, 'invalid', `Ask for 1 to ${MOST_TOGETHER} files at once, each by its hash.`)
      return streamed(c, together(audio, parsed.data.hashes), 200, {
        'content-type': 'application/octet-stream',
        'cache-control': 'no-store',
      })
    })
    .post('/:hash', async (c) => {
      const parsed = audioAnnouncementSchema.safeParse(await readJson(c))
      if (!parsed.success) return refuse(422, 'invalid', 'An audio file is announced by its length in bytes (1 to 2 GB) and its name.')
      return c.json(await audio.announce(hashOf(c), parsed.data.bytes, parsed.data.name))
    })
    .put('/:hash/chunks/:place', async (c) => {
      const hash = hashOf(c)
      const place = Number(c.req.param('place'))
      const state = await audio.state(hash)
      if (!state) return c.json(apiError('notFound', 'This file has not been announced. Announce it first.'), 404)
      if (state.state === 'ready') return c.json({ stored: place })
      const expected = chunkLength(state.bytes, place)
      const data = Buffer.from(await c.req.arrayBuffer())
      if (data.length !== expected)
        return c.json(apiError('invalid', `Chunk ${place} of this file has ${expected} bytes; ${data.length} came.`), 422)
      await audio.putChunk(hash, place, data)
      return c.json({ stored: place })
    })
    .post('/:hash/finish', async (c) => {
      const outcome = await audio.finish(hashOf(c))
      if (outcome.type === 'ready') return c.json({ state: 'ready' as const })
      if (outcome.type === 'notFound') return c.json(apiError('notFound', 'This file has not been announced. Announce it first.'), 404)
      if (outcome.type === 'incomplete')
        return c.json(apiError('incomplete', 'Some chunks have not arrived; send them and finish again.', outcome), 409)
      return c.json(
        apiError('differs', 'The bytes that came are not the file they were named for. They were thrown away; send it again.'),
        422,
      )
    })
    .get('/:hash', async (c) => {
      const hash = hashOf(c)
      const state = await audio.state(hash)
      if (!state || state.state !== 'ready') return c.json(apiError('notFound', 'This audio has not arrived on the server yet.'), 404)
      return sendBytes(c, audio, hash, state.bytes)
    })
}

function hashOf(c: Context): string {
  const parsed = audioHashSchema.safeParse(c.req.param('hash'))
  return parsed.success ? parsed.data : refuse(422, 'invalid', 'Audio is named by 64 hexadecimal digits.')
}

function chunkLength(bytes: number, place: number): number {
  const last = Math.ceil(bytes / CHUNK_BYTES) - 1
  if (!Number.isInteger(place) || place < 0 || place > last) return refuse(422, 'invalid', `This file has chunks 0 to ${last}.`)
  return place === last ? bytes - last * CHUNK_BYTES : CHUNK_BYTES
}

/** The whole file, or the one range that was asked for. */
function sendBytes(c: Context, audio: AudioRepository, hash: string, bytes: number): Response {
  const range = /^bytes=(\d+)-(\d*)$/.exec(c.req.header('range') ?? '')
  const from = range ? Number(range[1]) : 0
  const to = range?.[2] ? Math.min(bytes, Number(range[2]) + 1) : bytes
  if (from >= to) return c.body(null, 416, { 'content-range': `bytes */${bytes}` })
  return streamed(c, audio.read(hash, from, to), range ? 206 : 200, {
    'content-type': 'audio/wav',
    'content-length': String(to - from),
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=31536000, immutable',
    ...(range ? { 'content-range': `bytes ${from}-${to - 1}/${bytes}` } : {}),
  })
}

/** Each file as it is laid down in `audioTogetherSchema`. */
async function* together(audio: AudioRepository, hashes: readonly string[]): AsyncGenerator<Uint8Array> {
  const lengths = await audio.lengths(hashes)
  for (const hash of hashes) {
    const bytes = lengths.get(hash) ?? 0
    const isShort = bytes <= CHUNK_BYTES
    yield bigEndian(isShort ? bytes : 0)
    if (isShort && bytes > 0) yield* audio.read(hash, 0, bytes)
  }
}

function bigEndian(value: number): Uint8Array {
  const bytes = new Uint8Array(4)
  new DataView(bytes.buffer).setUint32(0, value)
  return bytes
}

function streamed(c: Context, pieces: AsyncGenerator<Uint8Array>, status: 200 | 206, headers: Record<string, string>): Response {
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const { value, done } = await pieces.next()
      if (done) controller.close()
      else controller.enqueue(value)
    },
    cancel: () => void pieces.return(undefined), // whoever asked has gone
  })
  return c.body(body, status, headers)
}
