/** @jest-environment node */
import { ACT_RECORDS, DoneField, EventField } from '@heliaster/core/engine'
import type { EngineMemory } from '@heliaster/core/engine'

import type { WorkletState } from '../../../core/engine/hosts/messages'
import { chunkBacking, takeState } from './two-copies'

const mockAdded = jest.fn(
  (memory: { chunks: Float32Array[] }, chunk: number, frames: number) => (memory.chunks[chunk] = new Float32Array(frames)),
)
jest.mock('@heliaster/core/engine', () => ({
  ...jest.requireActual<object>('@heliaster/core/engine'),
  addChunk: (...given: [{ chunks: Float32Array[] }, number, number]) => mockAdded(...given),
})) // prettier-ignore

const told = jest.fn()
const memoryOf = () => ({ chunks: [] as Float32Array[] }) as unknown as EngineMemory
beforeEach(() => jest.clearAllMocks())

test('shared memory is told of once, with its samples; what is written there needs no message', () => {
  const backing = chunkBacking(memoryOf(), true, told)
  const samples = backing.createChunk(2, 100)
  expect(told.mock.calls).toEqual([[{ type: 'chunk', chunk: 2, frames: 100, samples }]])
  backing.written(2, 10, 5)
  expect(told).toHaveBeenCalledTimes(1)
})

test('of two copies the other hears what was written, in a copy that is given away', () => {
  const memory = memoryOf()
  const backing = chunkBacking(memory, false, told)
  const samples = backing.createChunk(1, 100)
  expect(mockAdded).not.toHaveBeenCalled()
  expect(memory.chunks[1]).toBe(samples)
  expect(told.mock.lastCall).toEqual([{ type: 'chunk', chunk: 1, frames: 100, samples: undefined }])
  samples.set([1, 2, 3], 10)
  backing.written(1, 10, 3)
  const [message, given] = told.mock.lastCall as [{ samples: Float32Array }, ArrayBuffer[]]
  expect(message).toEqual({ type: 'samples', chunk: 1, startFrame: 10, samples: Float32Array.of(1, 2, 3) })
  expect(given).toEqual([message.samples.buffer])
  expect(message.samples.buffer).not.toBe(samples.buffer)
})

test('what the worklet says of itself is taken up: acts to their places in the ring, meters only where they are higher', () => {
  const width = EventField.length
  const memory = { status: new Float64Array(64), done: new Int32Array(DoneField.length), uses: new Int32Array(4), log: new Float64Array(8), acts: new Float64Array(ACT_RECORDS * width), meters: Float64Array.of(0.5, 0.1) } as unknown as EngineMemory // prettier-ignore
  const done = new Int32Array(DoneField.length)
  done[DoneField.acts] = ACT_RECORDS + 1
  const acts = new Float64Array(3 * width).map((_, i) => 1 + Math.floor(i / width))
  takeState(memory, { status: new Float64Array(64), done, uses: Int32Array.of(1, 2, 3, 4), log: new Float64Array(8).fill(7), acts, meters: Float64Array.of(0.2, 0.3) } as unknown as WorkletState) // prettier-ignore
  const actAt = (place: number) => memory.acts[place * width]
  expect([actAt(ACT_RECORDS - 2), actAt(ACT_RECORDS - 1), actAt(0), actAt(1)]).toEqual([1, 2, 3, 0])
  expect([...memory.meters]).toEqual([0.5, 0.3])
  expect([[...memory.uses], memory.log[0], memory.done[DoneField.acts]]).toEqual([[1, 2, 3, 4], 7, ACT_RECORDS + 1])
})
