import { applySourceEdit, createSource } from '@heliaster/core/kit'
import type { Source, SourceEdit } from '@heliaster/core/kit'
import { act, renderHook } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { cutLooks } from './looks'
import { useAnalysis, useCutActions } from './use-source-cut'

let mockSource: Source
let mockSteps = 0
const mockEnd = jest.fn()
const mockRemember = jest.fn()
const mockListen = jest.fn()
const mockLook = jest.fn()
const mockDecode = jest.fn()
const mockApply = (edits: SourceEdit[], before: Source) => edits.reduce(applySourceEdit, before)
jest.mock('../../../documents', () => ({
  sources: {
    store: { getState: () => ({ entries: { [mockSource.id]: { doc: mockSource } } }) },
    edit: (_id: unknown, edits: SourceEdit[]) => void (mockSteps++, (mockSource = mockApply(edits, mockSource))),
    gesture: () => {
      const before = mockSource
      mockSteps++
      return { set: (edits: SourceEdit[]) => (mockSource = mockApply(edits, before)), end: () => mockEnd() as unknown }
    },
  },
}))
jest.mock('../../../documents/last-cut', () => ({ rememberCut: (cut: unknown) => mockRemember(cut) as unknown }))
jest.mock('../../../audio/files/audio-files', () => ({ decodedAudio: (hash: string) => mockDecode(hash) as unknown }))
jest.mock('../../../audio/workers/workers', () => ({
  coreWork: () => ({
    look: (...given: unknown[]) => Promise.resolve(mockLook(...given)),
    listen: (...given: unknown[]) => Promise.resolve(mockListen(...given)),
  }),
}))

const found = { id: 'found-4800' as never, frame: 4800, origin: 'found' as const, pinned: false, removed: false, kept: false }
const ended = { ...found, endFrame: 9600 }
const acts = () => renderHook(() => useCutActions(mockSource)).result.current
/** The one marker that is written. */
const marker = () => mockSource.markers[0]

beforeEach(() => {
  jest.clearAllMocks()
  mockSource = createSource(makeId, audio, info, 'Walk')
  mockSteps = 0
  cutLooks.setState({ endsStay: false })
})

test('a marker is dragged in one step, within the recording', () => {
  const { slideMarker, endGesture } = acts()
  for (const frame of [5000, 6000, 99_999_999]) slideMarker(found, frame)
  expect(marker().frame).toBe(info.frames - 1)
  slideMarker(found, -5)
  endGesture()
  expect([marker().frame, mockSteps, mockSource.markers.length]).toEqual([0, 1, 1])
  expect([mockEnd.mock.calls.length, mockRemember.mock.calls.length]).toEqual([1, 0]) // how it is cut did not change
  slideMarker(found, 10)
  expect(mockSteps).toBe(2)
})

test('a window with an end of its own is moved as a whole, unless its end is to stay', () => {
  const { nudge } = acts()
  nudge(ended, 1200)
  expect(marker()).toMatchObject({ frame: 6000, endFrame: 10_800 })
  nudge({ ...ended, endFrame: info.frames }, 48)
  expect(marker()).toMatchObject({ frame: 4848, endFrame: info.frames })
  cutLooks.setState({ endsStay: true })
  nudge(ended, 48)
  expect(marker()).toMatchObject({ frame: 4848, endFrame: 9600 })
  nudge(ended, 48_000)
  expect(marker()).toMatchObject({ frame: 9599, endFrame: 9600 })
})

test('an end comes after its begin, and without one the tail is looked for again', () => {
  const { slideTail, endGesture, setEnd } = acts()
  slideTail(found, 7000)
  slideTail(found, 10)
  endGesture()
  expect([marker().endFrame, mockSteps]).toEqual([4801, 1])
  setEnd(found, 6000.4)
  expect(marker().endFrame).toBe(6000)
  setEnd(found, 3)
  expect(marker().endFrame).toBe(4801)
  setEnd(ended)
  expect(marker().endFrame).toBeUndefined()
})

test('a marker is pinned and let go, named, judged and judged no more, and removed, each in a step', () => {
  const { pin, name, judge, remove } = acts()
  pin(found)
  expect(marker().pinned).toBe(true)
  pin({ ...found, pinned: true })
  name(found, 'x'.repeat(130))
  expect([marker().pinned, marker().name]).toEqual([false, 'x'.repeat(120)])
  judge(found, 'pass')
  expect(marker().verdict).toBe('pass')
  judge({ ...found, verdict: 'pass' }, 'pass')
  expect(marker().verdict).toBeUndefined()
  remove(found)
  expect([marker().removed, mockSteps]).toEqual([true, 6])
})

test('many are judged, named or taken away in one step', () => {
  const many = [found, { ...found, id: 'found-9' as never, frame: 9 }]
  const { judgeAll, nameAll, removeAll, slideClips, endGesture } = acts()
  judgeAll(many, 'keep')
  expect(mockSource.markers.map(({ verdict }) => verdict)).toEqual(['keep', 'keep'])
  nameAll(many.map((one, i) => ({ marker: one, name: `${i}`.repeat(125) })))
  expect(mockSource.markers.map(({ name }) => name!.length)).toEqual([120, 120])
  slideClips(many.map((one) => ({ marker: one, clip: { gainDb: -3 } as never })))
  slideClips(many.map((one) => ({ marker: one, clip: { gainDb: -6 } as never })))
  endGesture()
  expect(mockSource.markers.map(({ clip }) => clip)).toEqual([{ gainDb: -6 }, { gainDb: -6 }])
  removeAll(many)
  expect([mockSource.markers.every(({ removed }) => removed), mockSteps]).toEqual([true, 4])
})

test('markers, strikes inside a hit and passages are set by hand, and stay', () => {
  const { add, cutOut, addPassage } = acts()
  const ids = [add(1234.6), addPassage({ startFrame: 50, endFrame: 700 })]
  cutOut([300, 400])
  expect(mockSource.markers.map(({ frame, endFrame, origin, pinned }) => [frame, endFrame, origin, pinned]).sort()).toEqual(
    [[1235, undefined], [300, undefined], [400, undefined], [50, 700]].map(([frame, end]) => [frame, end, 'hand', true]), // prettier-ignore
  )
  expect([new Set(mockSource.markers.map(({ id }) => id)).size, mockSource.markers.filter(({ id }) => ids.includes(id)).length]).toEqual([4, 2]) // prettier-ignore
})

test('how it is cut is one step, and remembered for the next recording, a drag once it ends', () => {
  const { setCut, slideCut, endGesture } = acts()
  setCut({ attack: 'slow' })
  expect([mockSource.cut.attack, mockRemember.mock.calls.length]).toEqual(['slow', 1])
  slideCut({ minGapSeconds: 0.1 })
  slideCut({ minGapSeconds: 0.2 })
  expect(mockRemember).toHaveBeenCalledTimes(1)
  endGesture()
  expect(mockRemember).toHaveBeenLastCalledWith(expect.objectContaining({ attack: 'slow', minGapSeconds: 0.2 }))
  endGesture()
  expect([mockRemember.mock.calls.length, mockSteps]).toEqual([2, 2])
})

describe('what is seen of a recording', () => {
  const heard = { curve: 'the curve', shown: 'shown', levels: 'levels', strikes: 'strikes', places: new Map() }
  const seen = (source: Source) => renderHook(({ of }: { of: Source }) => useAnalysis(of), { initialProps: { of: source } })
  const settle = () => act(async () => undefined)
  beforeEach(() => {
    mockDecode.mockResolvedValue({ audio: { sampleRateHz: 48000, channels: [] } })
    mockLook.mockReturnValue({ mono: new Float32Array(9), summary: {} })
    mockListen.mockReturnValue(heard)
  })

  test('comes with its strikes once they have been listened for; another way of listening comes behind it', async () => {
    const { result, rerender } = seen(mockSource)
    expect(result.current.type).toBe('reading')
    await settle()
    expect(result.current).toMatchObject({ type: 'ready', analysis: heard })
    expect(mockListen).toHaveBeenLastCalledWith(audio, { attack: undefined, inTime: undefined, isCoded: false })
    rerender({ of: { ...mockSource, cut: { ...mockSource.cut, inTime: true } } })
    expect(result.current.type).toBe('ready') // what is seen stays
    await settle()
    expect(mockListen).toHaveBeenLastCalledWith(audio, { attack: undefined, inTime: true, isCoded: false })
    expect(mockLook).toHaveBeenCalledTimes(1)
    rerender({ of: { ...mockSource, audio: 'c'.repeat(64) as never, info: { ...mockSource.info, name: 'oar.mp3' } } })
    expect(result.current.type).toBe('reading')
    await settle()
    expect(mockListen).toHaveBeenLastCalledWith('c'.repeat(64), expect.objectContaining({ isCoded: true }))
    expect(mockLook).toHaveBeenCalledTimes(2)
  })

  test('is seen before its strikes have been listened for, without any', async () => {
    let hears: (now: typeof heard) => void = () => undefined
    mockListen.mockReturnValue(new Promise((resolve) => (hears = resolve)))
    const { result } = seen(mockSource)
    await settle()
    expect(result.current).toMatchObject({ type: 'ready', analysis: { strikes: { strikes: [], line: 0.3 }, curve: { strength: new Float32Array(0) } } }) // prettier-ignore
    await act(async () => hears(heard))
    expect(result.current).toMatchObject({ analysis: { strikes: 'strikes' } })
  })

  test('is looked at again where the worker has forgotten it', async () => {
    mockListen.mockReturnValueOnce(undefined)
    const { result } = seen(mockSource)
    await settle()
    await settle()
    expect([mockLook.mock.calls.length, result.current.type]).toEqual([2, 'ready'])
    expect(result.current).toMatchObject({ analysis: { strikes: 'strikes' } })
  })

  test('says why where it cannot be read', async () => {
    mockDecode.mockRejectedValue(new Error('This file holds no sound.'))
    const { result } = seen(mockSource)
    await settle()
    expect(result.current).toEqual({ type: 'failed', message: 'This file holds no sound.' })
  })
})
