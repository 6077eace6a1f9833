/** @jest-environment node */
import 'fake-indexeddb/auto'

import { hashAudio } from '@heliaster/core/audio'
import type { AudioHash } from '@heliaster/core/kit'

import { localDb } from '../../sync/local-db'
import type * as Coming from './coming-in'
import { AudioMissing } from './from-server'
import { tidy } from '../workers/let-go'
import {
  audioBytes,
  audioPicture,
  decodedAudio,
  drawnPicture,
  keepAudio,
  missingAudio,
  noteMissing,
  passingAudio,
  readyAudio,
  soundForWorker,
} from './audio-files'

const mockKept = jest.fn()
const mockDecode = jest.fn()
const mockPicture = jest.fn()
const mockOnto = jest.fn()
const mockComing = () => jest.requireActual<typeof Coming>('./coming-in')
jest.mock('../../documents', () => ({ device: { filesKept: () => mockKept() } }))
jest.mock('../workers/workers', () => ({
  coreWork: () => ({
    ...mockComing(),
    file: async (hash: AudioHash) => {
      const bytes = mockComing().arrivedBytes(hash)
      return bytes && new Blob([bytes])
    },
    decodeHere: (hash: AudioHash) => mockDecode(hash) as unknown,
    decodeOnto: (tray: SharedArrayBuffer, hash: AudioHash) => mockOnto(tray, hash) as unknown,
    picture: (audio: unknown) => mockPicture(audio) as unknown,
  }),
}))

let turn = 0
const someBytes = () => Uint8Array.from({ length: 64 }, (_, i) => (i * 7 + ++turn) & 255)
const answers = (status: number, body?: Uint8Array<ArrayBuffer>) =>
  (globalThis.fetch = jest.fn(async () => new Response(status === 200 ? body : undefined, { status })))
const reason = (hash: string) => audioBytes(hash as AudioHash).then(() => 'none', (error: Error) => (error instanceof AudioMissing ? error.message : `not in words: ${error.message}`)) // prettier-ignore
const decodedOf = (frames: number) => ({ ok: true, decoded: { audio: { sampleRateHz: 48000, channels: [new Float32Array(frames)] }, cueFrames: [], notes: [] } }) // prettier-ignore

beforeEach(() => jest.clearAllMocks())

test('a new file is kept on this device and waits for the server; it is read from here, not from there', async () => {
  const bytes = someBytes()
  const hash = hashAudio(bytes)
  answers(500)
  await keepAudio(hash, 'oar.wav', new Blob([bytes]))
  expect(mockKept).toHaveBeenCalledTimes(1)
  expect(new Uint8Array(await audioBytes(hash))).toEqual(bytes)
  expect(fetch).not.toHaveBeenCalled()
  expect((await (await localDb()).get('audio', hash))?.uploaded).toBe(0)
})

test('a file that only the server has is fetched once and then kept here', async () => {
  const bytes = someBytes()
  const hash = hashAudio(bytes)
  answers(200, bytes)
  expect(new Uint8Array(await audioBytes(hash))).toEqual(bytes)
  expect(new Uint8Array(await audioBytes(hash))).toEqual(bytes)
  expect(fetch).toHaveBeenCalledTimes(1)
  expect((await (await localDb()).get('audio', hash))?.uploaded).toBe(1)
})

test('each way in which a file cannot be had is its own sentence, and none of them is kept', async () => {
  const hash = 'd'.repeat(64)
  answers(404)
  expect(await reason(hash)).toContain('Import the file again')
  answers(503)
  expect(await reason(hash)).toContain('It will come when the server is back')
  answers(403)
  expect(await reason(hash)).toContain('refused it (403)')
  answers(200, someBytes())
  expect(await reason(hash)).toContain('came damaged from the server')
  globalThis.fetch = jest.fn(() => Promise.reject(new TypeError('no line')))
  expect(await reason(hash)).toContain('the server cannot be reached')
  expect(await (await localDb()).get('audio', hash)).toBeUndefined()
})

test('a file is decoded once for all who want it; what failed is tried again', async () => {
  const bytes = someBytes()
  const hash = hashAudio(bytes)
  await keepAudio(hash, 'a.wav', new Blob([bytes]))
  mockDecode.mockResolvedValueOnce({ ok: false, message: 'It is damaged.' })
  await expect(decodedAudio(hash)).rejects.toThrow('It is damaged.')
  mockDecode.mockResolvedValue(decodedOf(100))
  const [one, other] = await Promise.all([decodedAudio(hash), decodedAudio(hash)])
  expect(one).toBe(other)
  expect(mockDecode).toHaveBeenCalledTimes(2)
  expect(readyAudio(hash)?.channels[0]).toHaveLength(100)
})

test('what was not used for longest is let go of when there is too much, and decoded again when it is wanted', async () => {
  const files = await Promise.all([0, 1, 2].map(async () => {
    const bytes = someBytes()
    await keepAudio(hashAudio(bytes), 'x.wav', new Blob([bytes]))
    return hashAudio(bytes)
  })) // prettier-ignore
  mockDecode.mockImplementation(async () => decodedOf(1_600_000)) // two fit
  for (const hash of files.slice(0, 2)) await decodedAudio(hash)
  await decodedAudio(files[0]) // used again
  await decodedAudio(files[2])
  expect(files.map((hash) => readyAudio(hash) !== undefined)).toEqual([true, false, true])
  const before = mockDecode.mock.calls.length
  await decodedAudio(files[1])
  expect(mockDecode.mock.calls.length).toBe(before + 1)
  // When all has come, those that happened to be last are no more wanted than the others; few stay.
  const atHand = () => files.filter((hash) => readyAudio(hash) !== undefined).length
  tidy()
  expect(atHand()).toBe(0)
  for (const hash of files.slice(0, 2)) await decodedAudio(hash)
  tidy()
  expect(atHand()).toBe(2)
})

test('what is only passed on lies on a tray that serves the next file once it is done; what does not fit, or is at hand, comes by itself', async () => {
  Object.assign(globalThis, { crossOriginIsolated: true })
  const aFile = async () => {
    const bytes = new Uint8Array(new TextEncoder().encode(`file ${++turn}`))
    await keepAudio(hashAudio(bytes), 't.wav', new Blob([bytes]))
    return hashAudio(bytes)
  }
  const trays: SharedArrayBuffer[] = []
  mockOnto.mockImplementation(async (tray: SharedArrayBuffer) => {
    trays.push(tray)
    new Float32Array(tray).fill(trays.length / 4)
    return { ok: true, sampleRateHz: 44100, channels: 1, frames: 10 }
  })
  const first = await passingAudio(await aFile(), 10)
  const second = await passingAudio(await aFile(), 10)
  expect([first, second].map(({ audio }) => [audio.sampleRateHz, audio.channels[0].length, audio.channels[0][9]])).toEqual([
    [44100, 10, 0.25],
    [44100, 10, 0.5],
  ])
  expect(readyAudio(await aFile())).toBeUndefined()
  first.done()
  await passingAudio(await aFile(), 10)
  expect([trays[2] === trays[0], trays[1] === trays[0]]).toEqual([true, false])
  mockOnto.mockResolvedValueOnce(decodedOf(5000))
  expect((await passingAudio(await aFile(), 10)).audio.channels[0]).toHaveLength(5000)
  mockOnto.mockResolvedValueOnce({ ok: false, message: 'Not audio.' })
  await expect(passingAudio(await aFile(), 10)).rejects.toThrow('Not audio.')
  const elsewhere = someBytes()
  answers(200, elsewhere)
  mockOnto.mockResolvedValueOnce(undefined)
  expect((await passingAudio(hashAudio(elsewhere), 10)).audio.channels[0]).toHaveLength(10)
  expect(fetch).toHaveBeenCalledTimes(1)
  mockDecode.mockResolvedValue(decodedOf(7))
  const kept = await aFile()
  await decodedAudio(kept)
  const before = mockOnto.mock.calls.length
  expect((await passingAudio(kept, 7)).audio).toBe(readyAudio(kept))
  expect(mockOnto.mock.calls.length).toBe(before)
  Reflect.deleteProperty(globalThis, 'crossOriginIsolated')
})

test('a worker is given a short file as it is, samples that are at hand, and a long file decoded', async () => {
  const [short, long] = await Promise.all(
    [64, 1_500_000].map(async (length) => {
      const bytes = new Uint8Array(length).fill(++turn)
      await keepAudio(hashAudio(bytes), 's.wav', new Blob([bytes]))
      return hashAudio(bytes)
    }),
  )
  mockDecode.mockResolvedValue(decodedOf(7))
  expect(await soundForWorker(short)).toHaveProperty('size', 64)
  expect(mockDecode).not.toHaveBeenCalled()
  expect(await soundForWorker(long)).toBe(readyAudio(long))
  await decodedAudio(short)
  expect(await soundForWorker(short)).toBe(readyAudio(short))
})

test('a file that the device has no room to take in is asked for once, and said to find none', async () => {
  const bytes = someBytes()
  answers(200, bytes)
  mockDecode.mockResolvedValue(undefined)
  await expect(decodedAudio(hashAudio(bytes))).rejects.toThrow('no room')
  expect(fetch).toHaveBeenCalledTimes(1)
})

test('a picture is drawn once, kept on this device, and at hand at once afterwards', async () => {
  const bytes = someBytes()
  const hash = hashAudio(bytes)
  await keepAudio(hash, 'p.wav', new Blob([bytes]))
  mockDecode.mockResolvedValue(decodedOf(10))
  mockPicture.mockResolvedValue({ low: new Float32Array(2), high: new Float32Array(2), measured: {} })
  expect(drawnPicture(hash)).toBeUndefined()
  const picture = await audioPicture(hash)
  expect(drawnPicture(hash)).toBe(picture)
  await audioPicture(hash)
  expect(mockPicture).toHaveBeenCalledTimes(1)
  expect(await (await localDb()).get('pictures', hash)).toBeDefined()
})

test('what is missing is noted with its reason until it is here', () => {
  const hash = 'e'.repeat(64) as AudioHash
  const told = jest.fn()
  const stop = missingAudio.subscribe(told)
  noteMissing(hash, 'Gone.')
  noteMissing(hash, 'Gone.')
  expect([told.mock.calls.length, missingAudio.getState()[hash]]).toEqual([1, 'Gone.'])
  noteMissing(hash, undefined)
  expect(hash in missingAudio.getState()).toBe(false)
  stop()
})
