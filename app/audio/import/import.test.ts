import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'

import { makeId } from '../../documents/make-id'
import { importFiles, soundsOf } from './import'
import type { ImportProgress } from './import'
import type { TakenOrReason } from './import-work'

const mockEntries: Record<string, { doc: Source }> = {}
const mockCreateMany = jest.fn((made: readonly Source[]) => made.forEach((doc) => (mockEntries[doc.id] = { doc })))
const mockKept = jest.fn()
const mockSendOn = jest.fn()
let mockTake: (file: File) => Promise<TakenOrReason>
const mockClose = jest.fn()
jest.mock('../../documents', () => ({
  sources: { store: { getState: () => ({ entries: mockEntries }) }, createMany: (made: readonly Source[]) => mockCreateMany(made) },
  device: { holdSending: () => mockSendOn, filesKept: () => mockKept() },
}))
jest.mock('../../documents/last-cut', () => ({ cutToBeginWith: () => ({ waterLine: 0.3, minGapSeconds: 0.06 }) }))
jest.mock('./import-pool', () => ({ createImportPool: () => ({ size: 2, take: (file: File) => mockTake(file), close: mockClose }) }))
jest.mock('../files/audio-files', () => ({}))
jest.mock('../workers/workers', () => ({}))

const hashOf = (name: string) => (/\d+/.exec(name)?.[0] ?? 'a').padStart(64, '0') as never
const info = { name: 'x.wav', sampleRateHz: 48000, frames: 480, channels: 1 }
const taken = (name: string, more: object = {}): TakenOrReason =>
  ({ ok: true, hash: hashOf(name), info: { ...info, name }, measured: {}, family: 'wood', cues: [], notes: [], told: {}, ...more }) as never

function file(path: string, size = 9): File {
  const made = new File([], path.split('/').pop()!)
  return Object.defineProperties(made, { webkitRelativePath: { value: path.includes('/') ? path : '' }, size: { value: size } })
}

async function imported(files: readonly File[]): Promise<ImportProgress> {
  const told: ImportProgress[] = []
  await importFiles(files, (progress) => told.push(progress)).finished
  expect(told[0]).toEqual({ done: [], total: files.length, state: 'running' })
  return told[told.length - 1]
}

beforeEach(() => {
  for (const id of Object.keys(mockEntries)) delete mockEntries[id]
  jest.clearAllMocks()
  mockTake = ({ name }) => Promise.resolve(taken(name))
})

test('each file becomes a sound by its own name, in one flock, and sending waits until all are in', async () => {
  const { done, state } = await imported([file('plank 1.wav'), file('plank 2.wav'), file('plank 3.aiff')])
  expect(state).toBe('finished')
  expect(soundsOf(done).map(({ name }) => name)).toEqual(['plank 1', 'plank 2', 'plank 3'])
  expect(mockCreateMany).toHaveBeenCalledTimes(1)
  expect(new Set(soundsOf(done).map(({ addedAt }) => addedAt)).size).toBe(1) // the list keeps the order of their names
  expect([mockKept.mock.calls.length, mockSendOn.mock.calls.length, mockClose.mock.calls.length]).toEqual([1, 1, 1])
})

test('one that fails says why, and the rest is kept', async () => {
  mockTake = ({ name }) => Promise.resolve(name.includes('2') ? { ok: false, reason: 'It holds no sound.' } : taken(name))
  const { done } = await imported([file('1.wav'), file('2.wav'), file('3.wav')])
  expect(done.filter((one) => one.type === 'failed')).toEqual([{ type: 'failed', name: '2.wav', reason: 'It holds no sound.' }])
  expect(soundsOf(done)).toHaveLength(2)
})

test('the same bytes are one sound, whether they were here before or come twice at once', async () => {
  const here = createSource(makeId, hashOf('7'), info, 'from before')
  mockEntries[here.id] = { doc: here }
  const { done } = await imported([file('7.wav'), file('8.wav'), file('8 copy 8.wav')])
  const kinds = done.map((one) => [one.type, one.type === 'failed' ? '' : one.source.name])
  expect(kinds).toContainEqual(['known', 'from before'])
  expect(kinds.filter(([type]) => type === 'known')).toHaveLength(2)
  expect(soundsOf(done)).toHaveLength(2)
  expect(mockCreateMany.mock.calls.flat(2)).toHaveLength(1)
})

test('a file of more than 2 GB is not even read', async () => {
  const take = jest.fn(mockTake)
  mockTake = take
  const { done } = await imported([file('long.wav', 2 ** 31 + 1)])
  expect(done).toEqual([{ type: 'failed', name: 'long.wav', reason: expect.stringContaining('larger than 2 GB') }])
  expect(take).not.toHaveBeenCalled()
})

test('the folder is a tag, and markers that come with a file are pinned and counted', async () => {
  mockTake = ({ name }) => Promise.resolve(taken(name, { cues: [{ frame: 5, label: 'heel' }, { frame: 99 }], notes: ['It was said.'] }))
  const { done } = await imported([file('yard/capstan/pawl 1.wav'), file('pawl 2.wav')])
  expect(soundsOf(done).map(({ tags }) => tags)).toEqual([['capstan'], []])
  const [source] = soundsOf(done)
  expect(source.markers.map(({ frame, name, pinned, origin }) => [frame, name, pinned, origin])).toEqual([[5, 'heel', true, 'file'], [99, undefined, true, 'file']]) // prettier-ignore
  expect(done[0]).toMatchObject({ notes: ['It was said.', '2 markers came with the file and are pinned.'] })
})

test('when it is cancelled what is in stays, nothing more is begun, and that is the last word', async () => {
  const told: ImportProgress[] = []
  const waiting: (() => void)[] = []
  mockTake = ({ name }) => new Promise((resolve) => waiting.push(() => resolve(taken(name))))
  const files = Array.from({ length: 20 }, (_, i) => file(`${i + 1}.wav`))
  const running = importFiles(files, (progress) => told.push(progress))
  expect(waiting).toHaveLength(2)
  running.cancel()
  waiting.forEach((finish) => finish())
  await running.finished
  expect(waiting).toHaveLength(2)
  const last = told[told.length - 1]
  expect([last.state, last.done.length, last.total]).toEqual(['cancelled', 2, 20])
  expect(mockCreateMany.mock.calls.flat(2)).toHaveLength(2)
  expect(mockSendOn).toHaveBeenCalledTimes(1)
})
