/** @jest-environment node */
import 'fake-indexeddb/auto'

import { readWav } from '@heliaster/core/audio'

import { localDb } from '../../sync/local-db'
import { work } from './journal-work'
import type { TakeReport } from './journal-work'

// No disk of its own here: what is recorded is held in memory, as in browsers without one.
const settings = { sampleRateHz: 8000, channels: 'mono' as const, bits: 24 as const, preRollSeconds: 0.1 }
const PIECE = 400

function anInput() {
  const port = { onmessage: undefined as ((event: { data: unknown }) => void) | undefined }
  let frame = 0
  return {
    port: port as unknown as MessagePort,
    /** Hands on one piece; its samples are the numbers of its frames, so that each is known again. */
    piece(level = 1e-5) {
      const channel = Float32Array.from({ length: PIECE }, (_, i) => (frame + i) * level)
      port.onmessage!({ data: { type: 'piece', firstFrame: frame, channels: [channel] } })
      frame += PIECE
    },
    flushed: (id: number) => port.onmessage!({ data: { type: 'flushed', id } }),
  }
}

async function samplesOf(hash: string): Promise<Float32Array> {
  const kept = await (await localDb()).get('audio', hash)
  const read = readWav(new Uint8Array(await (kept!.bytes as Blob).arrayBuffer()))
  if (!read.ok) throw new Error(read.message)
  return read.file.audio.channels[0]
}

beforeAll(() => Object.defineProperty(globalThis, 'navigator', { value: { storage: { estimate: async () => ({}) } }, configurable: true }))

test('a take holds the moment before the press, then every frame until it ends, and says where it began', async () => {
  const reports: TakeReport[] = []
  const input = anInput()
  expect(await work.listen(input.port, settings, (report) => reports.push(report))).toEqual({ onDisk: false })
  for (let i = 0; i < 5; i++) input.piece()
  expect(reports[reports.length - 1]).toMatchObject({ state: 'armed', seconds: 0, pieceSeconds: PIECE / 8000 })
  work.begin(5 * PIECE)
  for (let i = 0; i < 3; i++) input.piece()
  expect(reports[reports.length - 1].state).toBe('running')
  const take = (await work.finish('quay'))!
  const before = settings.preRollSeconds * settings.sampleRateHz
  expect(take).toMatchObject({ lostFrames: 0, startFrame: 5 * PIECE - before, journal: undefined })
  expect(take.info).toMatchObject({ name: 'quay.wav', frames: before + 3 * PIECE, channels: 1 })
  const samples = await samplesOf(take.hash)
  samples.forEach((sample, i) => expect(sample).toBeCloseTo((take.startFrame + i) * 1e-5, 6))
})

test('full samples are counted, a run of them once, and peaks are told', async () => {
  const reports: TakeReport[] = []
  const input = anInput()
  await work.listen(input.port, settings, (report) => reports.push(report))
  input.piece(1) // rises past the top within its first frames and stays there
  expect(reports[0]).toMatchObject({ clips: 1 })
  expect(reports[0].peaks[0]).toBeGreaterThan(1)
  await work.letGo()
})

test('nothing recorded is nothing kept, and an input that is let go of is heard no more', async () => {
  const report = jest.fn()
  const input = anInput()
  await work.listen(input.port, settings, report)
  expect(await work.finish('nothing')).toBeUndefined()
  const calls = report.mock.calls.length
  input.piece()
  expect(report.mock.calls.length).toBe(calls)
  expect(await work.finish('still nothing')).toBeUndefined()
})

test('of two inputs opened one after the other only the second one is recorded', async () => {
  const [first, second] = [anInput(), anInput()]
  const told = [jest.fn(), jest.fn()]
  await Promise.all([work.listen(first.port, settings, told[0]), work.listen(second.port, settings, told[1])])
  work.begin(0)
  second.piece()
  if ((first.port as { onmessage?: unknown }).onmessage) first.piece()
  expect([told[0].mock.calls.length, told[1].mock.calls.length]).toEqual([0, 1])
  const take = await work.finish('second')
  expect(take?.info.frames).toBe(PIECE)
})

test('a stop waits for the input’s last piece, and not for ever', async () => {
  const input = anInput()
  await work.listen(input.port, settings, () => undefined)
  let isFlushed = false
  const flushed = work.whenFlushed(3).then(() => (isFlushed = true))
  input.flushed(2) // of an earlier stop
  await Promise.resolve()
  expect(isFlushed).toBe(false)
  input.flushed(3)
  await flushed
  expect(isFlushed).toBe(true)
  await work.letGo()
})
