import { act, renderHook } from '@testing-library/react'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { NotWorked, WorkStopped } from '../../../audio/files/worked-sound'
import { useDrawnHit } from './use-drawn-hit'

const mockDraws: (() => void)[] = []
const mockFails: ((error: Error) => void)[] = []
jest.mock('../../../audio/workers/workers', () => ({}))
jest.mock('../../../audio/engine/worked', () => ({ workedMatter: () => Promise.resolve({ workedPad: (_kit: unknown, pad: unknown) => pad }) })) // prettier-ignore
jest.mock('../../../audio/files/audio-files', () => ({
  decodedAudio: () => Promise.resolve({ audio: { sampleRateHz: 48000, channels: [new Float32Array(4800).fill(0.5)] } }),
}))
jest.mock('../../../audio/engine/draw', () => ({
  drawStrike: () =>
    new Promise((resolve, reject) => {
      mockFails.push(reject)
      mockDraws.push(() => resolve({ left: new Float32Array(4800).fill(0.5), right: new Float32Array(4800) }))
    }),
}))

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

/** The drawing that was asked for last has come. */
const drawn = async () => {
  await act(async () => {
    await jest.advanceTimersByTimeAsync(100)
    mockDraws.at(-1)!()
    await jest.advanceTimersByTimeAsync(100)
  })
}

test('a pad keeps its last drawing until the next one is there; another pad never shows it as its own', async () => {
  const kit = aKitOf(aPad(1), aPad(1))
  const { result, rerender } = renderHook(({ kit, place }) => useDrawnHit(kit, kit.pads[place]), { initialProps: { kit, place: 0 } })
  expect(result.current).toBeUndefined()
  await drawn()
  const first = result.current
  expect(first?.levels.some((level) => level > 0)).toBe(true)
  rerender({ kit: { ...kit, values: { gainDb: -3 } }, place: 0 })
  expect(result.current).toBe(first)
  await drawn()
  expect(result.current).not.toBe(first)
  rerender({ kit, place: 1 })
  expect(result.current).toBeUndefined()
  await drawn()
  expect(result.current?.levels.some((level) => level > 0)).toBe(true)
})

test('what could not be drawn is drawn again by itself, but for what a person stopped', async () => {
  const kit = aKitOf(aPad(1))
  const { result, rerender } = renderHook(({ kit }) => useDrawnHit(kit, kit.pads[0]), { initialProps: { kit } })
  const fails = (error: Error) => act(async () => {
    await jest.advanceTimersByTimeAsync(100)
    mockFails.at(-1)!(error)
    await jest.advanceTimersByTimeAsync(0)
  }) // prettier-ignore
  const asked = mockDraws.length
  await fails(new NotWorked('It was set anew.'))
  expect(result.current).toBeUndefined()
  await act(() => jest.advanceTimersByTimeAsync(1000))
  expect(mockDraws).toHaveLength(asked + 2)
  await drawn()
  expect(result.current?.levels.some((level) => level > 0)).toBe(true)
  rerender({ kit: { ...kit, values: { gainDb: -3 } } })
  await fails(new WorkStopped('It was stopped.'))
  await act(() => jest.advanceTimersByTimeAsync(60_000))
  expect(mockDraws).toHaveLength(asked + 3)
})
