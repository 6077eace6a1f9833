import assert from 'node:assert/strict'
import { test } from 'node:test'

import { hashAudio } from '@heliaster/core/audio'
import { CHUNK_BYTES } from '@heliaster/core/kit'
import type { ApiError } from '@heliaster/core/kit'

import { audioChunkRows } from '../rows'
import { aServer } from '../testing/a-server'

const server = aServer()
const { call } = server

const pattern = (length: number, seed: number) => Uint8Array.from({ length }, (_, i) => (i * 31 + seed * 17) ^ (i >> 9))
const chunkOf = (bytes: Uint8Array, place: number) => bytes.slice(place * CHUNK_BYTES, (place + 1) * CHUNK_BYTES)

async function aFile(bytes: Uint8Array, order = [...Array(Math.ceil(bytes.length / CHUNK_BYTES)).keys()]): Promise<string> {
  const hash = hashAudio(bytes as Uint8Array<ArrayBuffer>)
  assert.equal((await call('POST', `/api/audio/${hash}`, { bytes: bytes.length, name: 'a.wav' })).status, 200)
  for (const place of order) assert.equal((await call('PUT', `/api/audio/${hash}/chunks/${place}`, chunkOf(bytes, place))).status, 200)
  return hash
}
const sentence = (text: string) => assert.match(text, /^[A-Z].*[.]$/s)

test('whatever the order and however often a chunk is sent, the file is the same', async () => {
  const bytes = pattern(3 * CHUNK_BYTES + 5, 1)
  for (const order of [[3, 1, 0, 2], [0, 0, 2, 1, 3, 3], [2, 3, 1, 0, 2]]) {
    const hash = await aFile(bytes, order)
    assert.equal((await call('POST', `/api/audio/${hash}/finish`)).status, 200)
    assert.deepEqual((await call('GET', `/api/audio/${hash}`)).bytes, bytes)
  }
}) // prettier-ignore

test('a chunk that was torn on its way is refused, and the one sent again is taken', async () => {
  const bytes = pattern(CHUNK_BYTES + 9, 2)
  const hash = hashAudio(bytes as Uint8Array<ArrayBuffer>)
  await call('POST', `/api/audio/${hash}`, { bytes: bytes.length, name: 'a.wav' })
  const torn = await call<ApiError>('PUT', `/api/audio/${hash}/chunks/1`, chunkOf(bytes, 1).slice(0, 4))
  assert.equal(torn.status, 422)
  sentence(torn.json().error.message)
  for (const place of [0, 1]) await call('PUT', `/api/audio/${hash}/chunks/${place}`, chunkOf(bytes, place))
  assert.equal((await call('POST', `/api/audio/${hash}/finish`)).status, 200)
})

test('a sender that begins again is told what has arrived, and goes on with the rest', async () => {
  const bytes = pattern(2 * CHUNK_BYTES + 1, 3)
  const hash = await aFile(bytes, [2, 0])
  const again = await call<{ have: number[]; state: string }>('POST', `/api/audio/${hash}`, { bytes: bytes.length, name: 'a.wav' })
  assert.deepEqual([again.json().state, again.json().have], ['uploading', [0, 2]])
})

test('a file announced with another length is begun anew', async () => {
  const bytes = pattern(CHUNK_BYTES + 1, 4)
  const hash = await aFile(bytes, [0])
  const again = await call<{ have: number[] }>('POST', `/api/audio/${hash}`, { bytes: bytes.length + 1, name: 'a.wav' })
  assert.deepEqual(again.json().have, [])
})

test('what is not announced takes no chunk and cannot be finished; places past its end are refused', async () => {
  const hash = 'a'.repeat(64)
  assert.equal((await call('PUT', `/api/audio/${hash}/chunks/0`, Uint8Array.of(1))).status, 404)
  assert.equal((await call('POST', `/api/audio/${hash}/finish`)).status, 404)
  await call('POST', `/api/audio/${hash}`, { bytes: 10, name: 'a.wav' })
  for (const place of ['1', '-1', '0.5', 'x']) {
    const answer = await call<ApiError>('PUT', `/api/audio/${hash}/chunks/${place}`, Uint8Array.of(1))
    assert.equal(answer.status, 422, place)
    sentence(answer.json().error.message)
  }
})

test('a file of no bytes, or of more than 2 GB, is not announced', async () => {
  for (const bytes of [0, -1, 2 ** 31 + 1, 1.5, 'many']) {
    const answer = await call<ApiError>('POST', `/api/audio/${'b'.repeat(64)}`, { bytes, name: 'a.wav' })
    assert.equal(answer.status, 422, String(bytes))
    sentence(answer.json().error.message)
  }
})

test('any range is given as it was asked for; one past the end is refused, one that cannot be read gives all', async () => {
  const bytes = pattern(2 * CHUNK_BYTES + 100, 5)
  const hash = await aFile(bytes)
  await call('POST', `/api/audio/${hash}/finish`)
  const get = (range: string) => call('GET', `/api/audio/${hash}`, undefined, { range })
  for (const [from, to] of [[0, 0], [1, CHUNK_BYTES], [CHUNK_BYTES - 1, CHUNK_BYTES], [5, 2 * CHUNK_BYTES + 99], [2 * CHUNK_BYTES, 2 * CHUNK_BYTES + 5000]]) {
    const answer = await get(`bytes=${from}-${to}`)
    assert.equal(answer.status, 206)
    assert.deepEqual(answer.bytes, bytes.slice(from, to + 1))
    const last = Math.min(to, bytes.length - 1)
    assert.equal(answer.headers.get('content-range'), `bytes ${from}-${last}/${bytes.length}`)
    assert.equal(answer.headers.get('content-length'), String(last - from + 1))
  }
  assert.deepEqual((await get(`bytes=${CHUNK_BYTES}-`)).bytes, bytes.slice(CHUNK_BYTES))
  const past = await get(`bytes=${bytes.length}-`)
  assert.deepEqual([past.status, past.headers.get('content-range')], [416, `bytes */${bytes.length}`])
  assert.deepEqual([(await get('bytes=8-2')).status, (await get('lines=1-2')).status], [416, 200])
}) // prettier-ignore

test('many are asked for at once, and each comes in its order; what is long, or not there, is left to be asked for by itself', async () => {
  const short = [pattern(10, 20), pattern(CHUNK_BYTES, 21), pattern(1, 22)]
  const long = pattern(CHUNK_BYTES + 1, 23)
  const hashes: string[] = []
  for (const bytes of [...short, long]) {
    hashes.push(await aFile(bytes))
    await call('POST', `/api/audio/${hashes.at(-1)!}/finish`)
  }
  const begun = await aFile(pattern(2 * CHUNK_BYTES, 24), [0]) // never finished
  const asked = [hashes[1], 'e'.repeat(64), hashes[3], hashes[0], begun, hashes[2], hashes[0]]
  const answer = await call('POST', '/api/audio/together', { hashes: asked })
  assert.equal(answer.status, 200)
  const view = new DataView(answer.bytes.buffer, answer.bytes.byteOffset, answer.bytes.byteLength)
  const parts: Uint8Array[] = []
  for (let at = 0; at < answer.bytes.length; at += 4 + parts.at(-1)!.length) parts.push(answer.bytes.slice(at + 4, at + 4 + view.getUint32(at)))
  const none = new Uint8Array()
  assert.deepEqual(parts, [short[1], none, none, short[0], none, short[2], short[0]])
}) // prettier-ignore

test('nothing, too much at once, or what is no hash is refused in words', async () => {
  for (const hashes of [[], Array<string>(33).fill('a'.repeat(64)), ['a'], 'a'.repeat(64)]) {
    const answer = await call<ApiError>('POST', '/api/audio/together', { hashes })
    assert.equal(answer.status, 422)
    sentence(answer.json().error.message)
  }
})

test('a row that was lost on the disk is no file any more: nothing wrong is given for it', async () => {
  const bytes = pattern(2 * CHUNK_BYTES, 6)
  const hash = await aFile(bytes)
  await server.database().getRepository(audioChunkRows).delete({ hash, place: 1 })
  const finish = await call<ApiError>('POST', `/api/audio/${hash}/finish`)
  assert.deepEqual([finish.status, (finish.json().error.details as { missing: number[] }).missing], [409, [1]])
  await call('PUT', `/api/audio/${hash}/chunks/1`, chunkOf(bytes, 1))
  assert.equal((await call('POST', `/api/audio/${hash}/finish`)).status, 200)
})

test('bytes that were changed on the disk do not pass for the file', async () => {
  const bytes = pattern(CHUNK_BYTES, 7)
  const hash = await aFile(bytes)
  const data = Buffer.from(bytes)
  data[1000] ^= 1
  await server.database().getRepository(audioChunkRows).update({ hash, place: 0 }, { data })
  const finish = await call<ApiError>('POST', `/api/audio/${hash}/finish`)
  assert.equal(finish.status, 422)
  sentence(finish.json().error.message)
  assert.equal((await call('GET', `/api/audio/${hash}`)).status, 404)
})
