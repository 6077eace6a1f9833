/** @jest-environment node */
import 'fake-indexeddb/auto'

import { hashAudio } from '@heliaster/core/audio'
import type { AudioHash } from '@heliaster/core/kit'

import { localDb } from '../../sync/local-db'
import { arrivedBytes } from './coming-in'
import { AudioMissing, bringAlong, fromServer, hurry } from './from-server'
import { keptFile } from './kept-file'

jest.mock('../workers/workers', () => ({ coreWork: () => jest.requireActual<object>('./coming-in') }))
/** What the worker waits for before it knows a hash. */
let mockSlow: Promise<void> | undefined
jest.mock('../workers/hash-of', () => ({
  hashOf: async (bytes: Uint8Array) => (
    await mockSlow,
    jest.requireActual<{ hashAudio: typeof hashAudio }>('@heliaster/core/audio').hashAudio(bytes)
  ),
}))

let turn = 0
/** A file of so many bytes that is like no other. */
function aFile(length: number): { hash: AudioHash; bytes: Uint8Array<ArrayBuffer> } {
  turn++
  const bytes = new Uint8Array(length).map((_, i) => (i < 4 ? turn >> (8 * i) : i * 7))
  return { hash: hashAudio(bytes), bytes }
}

/** A server that has the given files, gives them together in pieces of so many bytes, and never more than `brings` bytes. */
function aServerWith(
  files: readonly { hash: AudioHash; bytes: Uint8Array<ArrayBuffer> }[],
  { piece = 7, brings = Infinity, isOld = false } = {},
) {
  const asked: (string | string[])[] = []
  const bytesOf = (hash: string) => files.find((one) => one.hash === hash)?.bytes
  let hold: Promise<void> | undefined
  globalThis.fetch = jest.fn(async (address: string, init?: RequestInit) => {
    if (address !== '/api/audio/together') {
      const hash = address.split('/').at(-1)!
      asked.push(hash)
      const bytes = bytesOf(hash)
      return new Response(bytes, { status: bytes ? 200 : 404 })
    }
    const { hashes } = JSON.parse(init!.body as string) as { hashes: string[] }
    asked.push(hashes)
    if (isOld) return new Response(undefined, { status: 422 })
    const all: number[] = []
    for (const hash of hashes) {
      const bytes = bytesOf(hash) ?? new Uint8Array()
      all.push(0, 0, bytes.length >> 8, bytes.length & 255, ...bytes)
    }
    let at = 0
    return new Response(
      new ReadableStream<Uint8Array>({
        async pull(controller) {
          await hold
          if (at >= Math.min(brings, all.length)) return at < all.length ? controller.error(new TypeError('torn')) : controller.close()
          controller.enqueue(Uint8Array.from(all.slice(at, (at += piece))))
        },
      }),
    )
  }) as typeof fetch
  return { asked, holdUp: (until: Promise<void>) => (hold = until) }
}

/** A file's bytes, from the moment at which it is said to be here. */
async function bytesOf(hash: AudioHash): Promise<Uint8Array> {
  await fromServer(hash)
  return arrivedBytes(hash) ?? new Uint8Array(await (await keptFile(hash))!.arrayBuffer())
}
const kept = async (hash: AudioHash) => (await localDb()).get('audio', hash)
const along = (files: readonly { hash: AudioHash }[]) => bringAlong(() => files.map(({ hash }) => hash))

afterEach(() => along([]))

test('what is wanted next comes along in one answer, whatever the pieces it comes in, and is kept', async () => {
  for (const piece of [1, 3, 4, 50, 100_000]) {
    const files = [100, 1, 400, 3].map(aFile)
    const { asked } = aServerWith(files, { piece })
    along(files.slice(1))
    const all = await Promise.all(files.map(({ hash }) => bytesOf(hash)))
    expect(all).toEqual(files.map(({ bytes }) => bytes))
    expect(asked).toEqual([files.map(({ hash }) => hash)])
    along([])
    await Promise.all(files.map(({ hash }) => fromServer(hash))) // waits until all are kept
    for (const { hash } of files) expect((await kept(hash))?.uploaded).toBe(1)
  }
})

test('nothing wanted next, a file is asked for by itself', async () => {
  const file = aFile(20)
  const { asked } = aServerWith([file])
  expect(await bytesOf(file.hash)).toEqual(file.bytes)
  expect(asked).toEqual([file.hash])
})

test('a file that many wait for is asked for once, and again once it has come', async () => {
  const file = aFile(20)
  const { asked } = aServerWith([file])
  expect(await Promise.all(Array.from({ length: 8 }, () => bytesOf(file.hash)))).toEqual(Array(8).fill(file.bytes))
  expect(asked).toEqual([file.hash])
  const gone = aFile(20)
  await Promise.all([1, 2].map(() => expect(fromServer(gone.hash)).rejects.toThrow('neither on this device')))
  await expect(fromServer(gone.hash)).rejects.toThrow('neither on this device')
  expect(asked.slice(1)).toEqual([gone.hash, gone.hash])
})

test('what is asked for in one turn of the page comes together, 32 and 32', async () => {
  const files = Array.from({ length: 40 }, () => aFile(5))
  const { asked } = aServerWith(files)
  expect(await Promise.all(files.map(({ hash }) => bytesOf(hash)))).toEqual(files.map(({ bytes }) => bytes))
  expect(asked.map((one) => one.length).sort()).toEqual([32, 8])
})

test('what is on this device is not asked for again, and no more than 32 at once', async () => {
  const files = Array.from({ length: 40 }, () => aFile(5))
  const { asked } = aServerWith(files)
  await bytesOf(files[3].hash)
  along(files.slice(1))
  await bytesOf(files[0].hash)
  const [, together] = asked as [string, string[]]
  expect(together).toHaveLength(31)
  expect(together).not.toContain(files[3].hash)
  expect(together[0]).toBe(files[0].hash)
})

test('what the answer leaves empty, or brings damaged, is asked for by itself, which says why', async () => {
  const [good, bad, gone] = [aFile(50), aFile(50), aFile(50)]
  const { asked } = aServerWith([good, { ...bad, bytes: bad.bytes.map((byte) => byte ^ 1) }])
  along([bad, gone])
  expect(await bytesOf(good.hash)).toEqual(good.bytes)
  await expect(fromServer(bad.hash)).rejects.toThrow('came damaged from the server')
  await expect(fromServer(gone.hash)).rejects.toThrow('neither on this device nor on the server')
  expect(asked.slice(1).sort()).toEqual([bad.hash, gone.hash].sort())
  expect(await kept(bad.hash)).toBeUndefined()
})

test('a server that gives none together gives each', async () => {
  const files = [aFile(9), aFile(9)]
  const { asked } = aServerWith(files, { isOld: true })
  along([files[1]])
  expect(await Promise.all(files.map(({ hash }) => bytesOf(hash)))).toEqual(files.map(({ bytes }) => bytes))
  expect(asked).toHaveLength(3)
})

test('a line that breaks in the middle: what has come is kept, for the rest it is said at once', async () => {
  const files = [aFile(30), aFile(30)]
  const { asked } = aServerWith(files, { brings: 50 })
  along([files[1]])
  const [one, other] = await Promise.allSettled(files.map(({ hash }) => bytesOf(hash)))
  expect(one).toMatchObject({ status: 'fulfilled', value: files[0].bytes })
  expect(other.status === 'rejected' && other.reason).toBeInstanceOf(AudioMissing)
  expect((other as PromiseRejectedResult).reason.message).toContain('the server cannot be reached')
  expect(asked).toHaveLength(1)
})

test('what has come is kept though its hash is known only after the line has broken', async () => {
  const files = [aFile(30), aFile(30)]
  aServerWith(files, { brings: 50 })
  along([files[1]])
  let answer = () => {}
  mockSlow = new Promise((resolve) => (answer = resolve))
  const both = Promise.allSettled(files.map(({ hash }) => bytesOf(hash)))
  const torn = new Promise((resolve) => setTimeout(resolve, 0)).then(() => new Promise((resolve) => setTimeout(resolve, 0)))
  await torn // the line has broken by now
  answer()
  expect((await both).map(({ status }) => status)).toEqual(['fulfilled', 'rejected'])
  expect((await kept(files[0].hash))?.uploaded).toBe(1)
  mockSlow = undefined
})

test('a file that is wanted now waits for no others', async () => {
  const files = [aFile(30), aFile(30)]
  const { holdUp, asked } = aServerWith(files)
  let goOn = () => {}
  holdUp(new Promise((resolve) => (goOn = resolve)))
  along([files[1]])
  const first = bytesOf(files[0].hash)
  const second = bytesOf(files[1].hash)
  hurry(files[1].hash)
  expect(await second).toEqual(files[1].bytes)
  expect(asked).toContain(files[1].hash)
  goOn()
  expect(await first).toEqual(files[0].bytes)
})

test('what came lies at hand until it was taken and is kept; of more than 16 MB what came last stays', async () => {
  const [small, ...large] = [9, 12e6, 12e6].map(aFile)
  aServerWith([small, ...large])
  await fromServer(small.hash)
  expect(arrivedBytes(small.hash)).toEqual(small.bytes)
  expect(arrivedBytes(small.hash)).toBeUndefined()
  for (const { hash } of large) await fromServer(hash)
  expect(large.map(({ hash }) => arrivedBytes(hash)?.length)).toEqual([undefined, 12e6])
  expect(await (await keptFile(large[0].hash))!.arrayBuffer()).toHaveProperty('byteLength', 12e6)
})

test('of an answer larger than what may lie at hand every file is here, and kept', async () => {
  const files = [6e6, 6e6, 6e6, 6e6].map(aFile)
  const heads = files.map(({ bytes }) => new Uint8Array([24, 16, 8, 0].map((shift) => bytes.length >> shift)))
  globalThis.fetch = jest.fn(async () => new Response(new Blob(files.flatMap(({ bytes }, i) => [heads[i], bytes])))) as typeof fetch
  along(files.slice(1))
  const all = await Promise.all(files.map(({ hash }) => bytesOf(hash)))
  expect(all.map((bytes, i) => Buffer.from(bytes).equals(files[i].bytes))).toEqual([true, true, true, true])
  expect(fetch).toHaveBeenCalledTimes(1)
  along([])
  for (const { hash } of files) await fromServer(hash) // waits until all are kept
  for (const { hash } of files) expect((await kept(hash))?.uploaded).toBe(1)
})

test('on a device without room a file is at hand as often as it is asked for, and comes again once it is gone', async () => {
  const put = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  const file = aFile(30)
  const { asked } = aServerWith([file])
  await fromServer(file.hash)
  for (let i = 0; i < 3; i++) expect(arrivedBytes(file.hash)).toEqual(file.bytes)
  put.mockRestore()
  expect(await kept(file.hash)).toBeUndefined()
  await fromServer(file.hash)
  expect(asked).toEqual([file.hash, file.hash])
  expect((await kept(file.hash))?.uploaded).toBe(1)
})

test('a line that brings nothing for ten seconds is dead, however long the worker was at other work', async () => {
  jest.useFakeTimers({ doNotFake: ['setTimeout', 'setImmediate', 'nextTick', 'queueMicrotask'] })
  const file = aFile(30)
  let hung = 0
  const hangs = (signal: AbortSignal) =>
    new Promise<Response>((_, reject) => {
      hung++
      signal.addEventListener('abort', () => reject(new DOMException('ended', 'AbortError')))
    })
  globalThis.fetch = jest.fn((_: string, { signal }: RequestInit) => hangs(signal!)) as typeof fetch
  const said = fromServer(file.hash).then(
    () => 'here',
    (reason: Error) => reason.message,
  )
  while (hung === 0) await new Promise((then) => setImmediate(then))
  jest.advanceTimersByTime(9999)
  expect(await Promise.race([said, 'none yet'])).toBe('none yet')
  jest.advanceTimersByTime(1)
  expect(await said).toContain('the server cannot be reached')
  jest.useRealTimers()
})
