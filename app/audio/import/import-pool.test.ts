import { createImportPool } from './import-pool'
import type { TakenOrReason } from './import-work'

interface MockWorker {
  onerror?: () => void
  terminate: jest.Mock
}
const mockWorkers: MockWorker[] = []
let mockTake: (file: File) => Promise<TakenOrReason>
jest.mock('comlink', () => ({ wrap: () => ({ take: (file: File) => mockTake(file) }) }))

const taken = { ok: true, hash: 'a' } as never
const file = (name: string, size = 10): File => Object.defineProperty(new File([], name), 'size', { value: size })
const never = () => new Promise<never>(() => undefined)

beforeEach(() => {
  mockWorkers.length = 0
  mockTake = () => Promise.resolve(taken)
  Object.assign(globalThis, {
    Worker: function (this: MockWorker) {
      this.terminate = jest.fn()
      mockWorkers.push(this)
    },
  })
})
afterEach(() => jest.useRealTimers())

const cores = (count: number) => Object.defineProperty(navigator, 'hardwareConcurrency', { value: count, configurable: true })

test.each([[1, 1], [2, 1], [3, 2], [16, 3]])('with %d cores %d files are read side by side', (count, size) => {
  cores(count)
  expect(createImportPool().size).toBe(size)
}) // prettier-ignore

test('a worker that has read a file reads the next one too', async () => {
  const pool = createImportPool()
  for (const name of ['plank 1.wav', 'plank 2.wav', 'plank 3.wav']) expect(await pool.take(file(name))).toBe(taken)
  expect(mockWorkers).toHaveLength(1)
  pool.close()
  expect(mockWorkers[0].terminate).toHaveBeenCalledTimes(1)
})

test('files that are read at once have a worker each', async () => {
  const pool = createImportPool()
  await Promise.all([pool.take(file('a.wav')), pool.take(file('b.wav'))])
  expect(mockWorkers).toHaveLength(2)
})

test('a file that says why it cannot be read keeps its worker', async () => {
  const pool = createImportPool()
  mockTake = () => Promise.resolve({ ok: false, reason: 'No sound in it.' })
  expect(await pool.take(file('notes.txt'))).toEqual({ ok: false, reason: 'No sound in it.' })
  await pool.take(file('b.wav'))
  expect(mockWorkers).toHaveLength(1)
})

test('a file on which a worker hangs is given up, later the larger it is, and the worker is replaced', async () => {
  jest.useFakeTimers()
  const pool = createImportPool()
  mockTake = never
  let answer: TakenOrReason | undefined
  void pool.take(file('endless.wav', 100e6)).then((result) => (answer = result))
  await jest.advanceTimersByTimeAsync(79_000)
  expect(answer).toBeUndefined()
  await jest.advanceTimersByTimeAsync(2_000)
  expect(answer).toEqual({ ok: false, reason: expect.stringContaining('took far too long') })
  expect(mockWorkers[0].terminate).toHaveBeenCalled()
  mockTake = () => Promise.resolve(taken)
  await pool.take(file('next.wav'))
  expect(mockWorkers).toHaveLength(2)
})

test('a worker that dies says so of its file alone', async () => {
  const pool = createImportPool()
  mockTake = never
  const answer = pool.take(file('broken.wav'))
  mockWorkers[0].onerror!()
  expect(await answer).toEqual({ ok: false, reason: 'This file could not be read. Export it again.' })
  expect(mockWorkers[0].terminate).toHaveBeenCalled()
})

test.each([
  [new DOMException('Quota', 'QuotaExceededError'), /no room left on this device/],
  [new Error('closed'), /could not be kept on this device/],
])('%s is told in a sentence', async (fault, words) => {
  // What comes out of a worker is an Error, whatever it was within.
  mockTake = () => Promise.reject(Object.assign(new Error(fault.message), { name: fault.name }))
  const answer = await createImportPool().take(file('a.wav'))
  expect(answer.ok ? '' : answer.reason).toMatch(words)
})
