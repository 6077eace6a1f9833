import { createSource } from '@heliaster/core/kit'
import { act, renderHook } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { useHearRow } from '../hits/use-hear-row'
import { writeOut } from '../sheets/write-out'
import { MOST_ALIKE, thingWords, useThings } from './use-things'
import type { CutHit } from './use-source-cut'

const mockJoins = jest.fn()
const mockHear = jest.fn()
const mockNotify = jest.fn()
const mockKeep = jest.fn()
const mockMeasure = jest.fn()
const mockPeaks: number[] = []
const mockMade: object[] = []
jest.mock('../../../audio/workers/workers', () => ({
  coreWork: () => ({
    joins: (...given: unknown[]) => mockJoins(...given) as unknown,
    clipPeak: async () => mockPeaks.shift(),
    clipAudio: async (_audio: unknown, clip: object) => {
      mockMade.push(clip)
      return clip
    },
  }),
}))
jest.mock('../../../audio/engine/sound', () => ({ hearClip: (clip: object) => mockHear(clip) as unknown }))
jest.mock('../../../audio/files/audio-files', () => ({ decodedAudio: async () => ({ audio: 'the recording' }) }))
jest.mock('../../../audio/files/measure-later', () => ({ measureLater: (made: unknown) => mockMeasure(made) as unknown }))
jest.mock('../../../audio/import/import', () => ({ keepMade: (...given: unknown[]) => mockKeep(...given) as unknown }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))

const source = createSource(makeId, audio, info, 'Slipway')
const hits = hitsOf(4)

beforeEach(() => {
  jest.clearAllMocks()
  mockMade.length = 0
  mockHear.mockResolvedValue(undefined)
})
afterEach(() => void jest.useRealTimers())

describe('what was struck', () => {
  const joins = [
    { one: 0, other: 1, unlike: 1 },
    { one: 2, other: 3, unlike: 1.1 },
    { one: 0, other: 2, unlike: 30 },
  ]

  test('is told once the hits have been compared, and with one thing more or less as far as there are any', async () => {
    mockJoins.mockResolvedValue(joins)
    const { result } = renderHook(() => useThings(source, hits))
    expect(result.current).toBeUndefined()
    await act(async () => undefined)
    const first = result.current!.groups.length
    expect(result.current!.groups.flat().sort()).toEqual([0, 1, 2, 3])
    act(() => result.current!.change(1)!())
    expect(result.current!.groups).toHaveLength(first + 1)
    while (result.current!.change(1)) act(() => result.current!.change(1)!())
    expect(result.current!.groups).toHaveLength(4)
    while (result.current!.change(-1)) act(() => result.current!.change(-1)!())
    expect(result.current!.groups).toHaveLength(1)
  })

  test('ends where a hit does, and one that is not described is as long as nothing', async () => {
    mockJoins.mockResolvedValue(joins.slice(0, 1))
    const undescribed: CutHit[] = [hits[0]!, { marker: hits[1]!.marker }]
    renderHook(() => useThings(source, undescribed))
    expect(mockJoins).toHaveBeenCalledWith(audio, [{ onsetFrame: 0, endFrame: 900 }, { onsetFrame: 1000, endFrame: 1001 }]) // prettier-ignore
    await act(async () => undefined)
  })

  test('is not asked of one hit, nor of more than fit a phone; other hits are compared anew', async () => {
    mockJoins.mockResolvedValueOnce(joins).mockResolvedValue(undefined)
    renderHook(() => useThings(source, hits.slice(0, 1)))
    const many = Array.from({ length: MOST_ALIKE + 1 }, () => hits[0]!)
    renderHook(() => useThings(source, many))
    expect(mockJoins).not.toHaveBeenCalled()
    const { result, rerender } = renderHook(({ of }) => useThings(source, of), { initialProps: { of: hits as readonly CutHit[] } })
    await act(async () => undefined)
    expect(result.current).toBeDefined()
    rerender({ of: hits.slice(0, 3) })
    expect(result.current).toBeUndefined()
    await act(async () => undefined)
  })

  test.each([
    [[[0], [1], [2]], '3 things were struck, each once.'],
    [[[0]], 'One thing was struck.'],
    [[[0, 1]], 'One thing was struck, several times.'],
    [[[0, 1], [2, 3]], '2 things were struck, each several times.'],
    [[[0, 1], [2], [3, 4]], '3 things were struck; 2 of them several times.'],
  ])('%j is told as: %s', (groups, words) => expect(thingWords(groups)).toBe(words))
}) // prettier-ignore

describe('a row of hits', () => {
  const seen = jest.fn()
  const row = (items: readonly CutHit[]) => renderHook(() => useHearRow(source, items, seen)).result
  const seconds = (of: CutHit, length: number): CutHit => ({ ...of, hit: { ...of.hit!, seconds: length } })

  test('is heard one after another, each as long as it is but no longer than two seconds, and then ends', () => {
    jest.useFakeTimers()
    const result = row([seconds(hits[0]!, 0.5), seconds(hits[1]!, 9)])
    act(() => result.current.toggle())
    expect([result.current.isHearing, seen.mock.calls.length]).toEqual([true, 1])
    act(() => void jest.advanceTimersByTime(570))
    expect(seen).toHaveBeenCalledTimes(1)
    act(() => void jest.advanceTimersByTime(20))
    expect(seen).toHaveBeenCalledTimes(2)
    act(() => void jest.advanceTimersByTime(2070))
    expect(result.current.isHearing).toBe(true)
    act(() => void jest.advanceTimersByTime(20))
    act(() => void jest.advanceTimersByTime(1))
    expect([result.current.isHearing, mockHear.mock.calls.length]).toEqual([false, 2])
  })

  test('stops when it is asked to, and where a hit cannot be heard, which says why', async () => {
    jest.useFakeTimers()
    const result = row(hits)
    act(() => result.current.toggle())
    act(() => result.current.toggle())
    act(() => void jest.advanceTimersByTime(5000))
    expect([result.current.isHearing, seen.mock.calls.length]).toEqual([false, 1])
    mockHear.mockRejectedValue(new Error('slipway.wav is gone.'))
    act(() => result.current.toggle())
    await act(async () => undefined)
    expect([result.current.isHearing, mockNotify.mock.lastCall]).toEqual([false, ['slipway.wav is gone.']])
  })
})

describe('hits written out', () => {
  test('are files of their own with their repairs, named and of a family, measured later', async () => {
    mockPeaks.splice(0, 9, 0.5, 0.5)
    mockKeep.mockImplementation(async (_made, name: string) => name)
    const named = { ...hits[0]!, marker: { ...hits[0]!.marker, name: 'Plank', clip: { gainDb: -3 } } }
    expect(await writeOut(source, [named, hits[1]!, { marker: hits[2]!.marker }], 'each')).toMatch(/^2 new files are on the list in Gather\./)
    expect(mockKeep.mock.calls.map(([, name, more]) => [name, more])).toEqual([
      ['Plank', { family: 'wood', tags: ['written out'] }],
      [expect.stringMatching(/^Slipway /), { family: 'wood', tags: ['written out'] }],
    ])
    expect(mockMade.map((clip) => (clip as { startFrame: number }).startFrame)).toEqual([0, 1000])
    expect((mockMade[0] as { gainDb: number }).gainDb).toBeCloseTo((mockMade[1] as { gainDb: number }).gainDb - 3, 6)
    expect(mockMeasure.mock.calls).toEqual([['Plank'], [expect.stringMatching(/^Slipway/)]])
  })

  test('say how far they came where something failed', async () => {
    mockPeaks.splice(0, 9, 0.5, 0.5)
    mockKeep.mockResolvedValueOnce('one').mockRejectedValueOnce(new Error('There is no room.'))
    expect(await writeOut(source, hits.slice(0, 2), 'each')).toBe('1 of 2 were written out, then: There is no room.')
    mockPeaks.splice(0, 9, 0.5)
    mockKeep.mockResolvedValueOnce('one')
    expect(await writeOut(source, hits.slice(0, 1), 'each')).toMatch(/^One new file is on the list in Gather\./)
  })
}) // prettier-ignore
