import { createSource } from '@heliaster/core/kit'
import type { MarkerId } from '@heliaster/core/kit'
import { act, renderHook } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { useBench } from './use-bench'
import type { CutKeys } from './use-cut-keys'
import type { Analysis, CutHit } from './use-source-cut'

let mockHits: CutHit[]
let mockKeys: CutKeys
let mockRow: { items: readonly CutHit[]; onHit: (item: CutHit) => void }
const mockActions = {
  judge: jest.fn(),
  judgeAll: jest.fn(),
  add: jest.fn(() => 'hand-1'),
  remove: jest.fn(),
  addPassage: jest.fn(() => 'hand-2'),
}
const mockHear = jest.fn()
const mockNotify = jest.fn()
jest.mock('../../../audio/engine/sound', () => ({ hearClip: (clip: object) => mockHear(clip) as unknown }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('./use-source-cut', () => ({ useHits: () => mockHits, useCutActions: () => mockActions }))
jest.mock('./use-cut-keys', () => ({ useCutKeys: (keys: CutKeys) => void (mockKeys = keys) }))
jest.mock('../hits/use-hear-row', () => ({
  useHearRow: (_source: unknown, items: readonly CutHit[], onHit: (item: CutHit) => void) => {
    mockRow = { items, onHit }
    return { isHearing: false, toggle: () => undefined }
  },
})) // prettier-ignore

const FRAMES = 48_000
const source = createSource(makeId, audio, info, 'Slipway')
const summary = { frames: FRAMES, levels: [{ framesPerPoint: 1, low: Float32Array.of(-0.46), high: Float32Array.of(0.1) }] }
const analysis = { audio: { sampleRateHz: 48_000 }, mono: { length: FRAMES }, summary } as unknown as Analysis
const idOf = (place: number) => mockHits[place]!.marker.id
const show = jest.fn()

/** Four hits: at 0, 1000, 2000 and 3000, 900 frames each; the third is passed. */
function bench() {
  const { result } = renderHook(() => useBench(source, analysis))
  result.current.list.current = { show } as never
  const does = (run: (now: typeof result.current) => unknown) => act(() => void run(result.current))
  return { now: () => result.current, does }
}
const heard = () => mockHear.mock.calls.map(([clip]) => (clip as { startFrame: number }).startFrame)

beforeEach(() => {
  jest.clearAllMocks()
  mockHear.mockResolvedValue(undefined)
  mockHits = hitsOf(4).map((hit, i) => (i === 2 ? { ...hit, marker: { ...hit.marker, verdict: 'pass' as const } } : hit))
})

test('a recording is seen whole first, raised so that it fills the height; passed hits are none to keep', () => {
  const { now } = bench()
  expect(now().view).toMatchObject({ start: 0, end: FRAMES, gain: expect.closeTo(2, 5) as number })
  expect([now().isWhole, now().rate]).toEqual([true, 48_000])
  expect([now().hits, now().listed, now().unpassed, now().kept].map(({ length }) => length)).toEqual([4, 4, 3, 3])
  expect(mockRow.items).toBe(now().unpassed)
})

test('a hit that has not been described is none to keep, and cannot be heard', () => {
  mockHits = [{ marker: mockHits[0]!.marker }, mockHits[1]!]
  const { now, does } = bench()
  expect(now().kept).toHaveLength(1)
  does(({ hear }) => hear(mockHits[0]!))
  expect(mockHear).not.toHaveBeenCalled()
})

test('a tap on a hit chooses and sounds it and brings its row; beside all of them it sets the cursor', () => {
  const { now, does } = bench()
  does(({ tap }) => tap(1000))
  expect([now().chosenId, now().cursor, heard()]).toEqual([idOf(1), 1000, [1000]])
  expect(show).toHaveBeenLastCalledWith(1)
  does(({ tap }) => tap(1899))
  expect(now().chosenId).toBe(idOf(1))
  does(({ tap }) => tap(1900)) // its end is no part of it
  expect([now().chosenId, now().cursor, show.mock.calls.length]).toEqual([undefined, 1900, 2])
})

test('what cannot be heard says why', async () => {
  mockHear.mockRejectedValue(new Error('slipway.wav is gone.'))
  const { does } = bench()
  does(({ hear }) => hear(mockHits[0]!))
  await act(async () => undefined)
  expect(mockNotify).toHaveBeenCalledWith('slipway.wav is gone.')
})

test('steps go through the list from its beginning and stop at its ends; what is out of sight comes to the middle', () => {
  const { now, does } = bench()
  const step = (by: number) => {
    does((at) => at.step(by))
    return mockHits.findIndex(({ marker }) => marker.id === now().chosenId)
  }
  expect([step(1), step(1), step(1), step(1), step(1), step(-1), step(-9)]).toEqual([0, 1, 2, 3, 3, 2, 0])
  does(({ setView }) => setView({ start: 0, end: 1500, gain: 1 }))
  step(1)
  expect(now().view.start).toBe(0)
  step(1)
  expect(now().view).toMatchObject({ start: 1250, end: 2750 })
})

test('in a list of another order steps follow that order', () => {
  const { now, does } = bench()
  does(({ setListView, listView }) => setListView({ ...listView, isReversed: true }))
  does(({ step }) => step(1))
  expect(now().chosenId).toBe(idOf(3))
  does(({ step }) => step(1))
  expect(now().chosenId).toBe(idOf(2))
})

test('a hit is added where the cursor stands, else in the middle of what is seen; a removed one is chosen no more', () => {
  const { now, does } = bench()
  does(({ add }) => add())
  expect([mockActions.add.mock.calls, now().chosenId]).toEqual([[[FRAMES / 2]], 'hand-1'])
  does(({ tap }) => tap(5000))
  does(({ add }) => add())
  expect(mockActions.add.mock.lastCall).toEqual([5000])
  does(({ remove }) => remove(mockHits[0]!.marker))
  expect([mockActions.remove.mock.lastCall, now().chosenId]).toEqual([[mockHits[0]!.marker], undefined])
})

test('verdicts are of markers, one or many', () => {
  const { does } = bench()
  does(({ judge }) => judge(mockHits[0]!, 'keep'))
  does(({ judgeAll }) => judgeAll(mockHits.slice(1, 3), 'pass'))
  expect(mockActions.judge.mock.calls).toEqual([[mockHits[0]!.marker, 'keep']])
  expect(mockActions.judgeAll.mock.calls).toEqual([[[mockHits[1]!.marker, mockHits[2]!.marker], 'pass']])
})

test('marking takes the chosen hit, else a fifth of what is seen round the cursor, within it; once more, and nothing is marked', () => {
  const { now, does } = bench()
  does(({ mark }) => mark())
  expect(now().passage).toEqual({ startFrame: 19_200, endFrame: 28_800 })
  does(({ mark }) => mark())
  expect(now().passage).toBeUndefined()
  does(({ tap }) => tap(47_999))
  does(({ mark }) => mark())
  expect(now().passage).toEqual({ startFrame: 38_400, endFrame: 48_000 })
  does(({ mark }) => mark())
  does(({ setView }) => setView({ start: 100, end: 102, gain: 1 }))
  does(({ mark }) => mark())
  expect(now().passage!.endFrame).toBeGreaterThan(now().passage!.startFrame)
  does(({ mark }) => mark())
  does(({ tap }) => tap(1000))
  does(({ mark }) => mark())
  expect(now().passage).toEqual({ startFrame: 1000, endFrame: 1900 })
})

test('a passage is heard and kept as a hit of its own, which is then chosen; without one nothing happens', () => {
  const { now, does } = bench()
  does((at) => [at.hearPassage(), at.keepPassage()])
  expect([mockHear.mock.calls.length, mockActions.addPassage.mock.calls.length]).toEqual([0, 0])
  does(({ setPassage }) => setPassage({ startFrame: 500, endFrame: 700 }))
  does(({ hearPassage }) => hearPassage())
  expect(mockHear.mock.lastCall![0]).toMatchObject({ startFrame: 500, endFrame: 700 })
  let id: MarkerId | undefined
  does(({ keepPassage }) => (id = keepPassage()))
  expect([id, mockActions.addPassage.mock.lastCall, now().chosenId, now().passage]).toEqual(['hand-2', [{ startFrame: 500, endFrame: 700 }], 'hand-2', undefined]) // prettier-ignore
})

test('one key goes between the whole and what was looked at last, or to the hit that was chosen meanwhile', () => {
  const { now, does } = bench()
  does(({ toggleZoom }) => toggleZoom())
  expect(now().isWhole).toBe(true) // there is nothing to go to yet
  does(({ setView }) => setView({ start: 900, end: 2100, gain: 4 }))
  does(({ toggleZoom }) => toggleZoom())
  expect(now().view).toMatchObject({ start: 0, end: FRAMES, gain: 4 })
  does(({ toggleZoom }) => toggleZoom())
  expect(now().view).toMatchObject({ start: 900, end: 2100 })
  does(({ toggleZoom }) => toggleZoom())
  does(({ tap }) => tap(1000))
  does(({ toggleZoom }) => toggleZoom())
  expect(now().view).toMatchObject({ start: 900, end: 2100 }) // the chosen one is in it
  does(({ toggleZoom }) => toggleZoom())
  does(({ tap }) => tap(3000))
  does(({ toggleZoom }) => toggleZoom())
  expect(now().view).toMatchObject({ start: 3000 - 425, end: 3900 + 425 })
})

test('keys zoom at the chosen hit, else in the middle, and change the height', () => {
  const { now, does } = bench()
  does(() => mockKeys.zoom(0.5))
  expect(now().view).toMatchObject({ start: 12_000, end: 36_000 })
  does(({ setView }) => setView({ start: 0, end: FRAMES, gain: 1 }))
  does(({ tap }) => tap(3000))
  does(() => mockKeys.zoom(0.5))
  expect(now().view.start).toBe(1500)
  expect(mockKeys.chosen?.marker.id).toBe(idOf(3))
  does(() => mockKeys.changeHeight())
  expect(now().view.gain).toBe(2)
})

test('a row that is heard shows each hit as it comes', () => {
  const { now, does } = bench()
  does(() => mockRow.onHit(mockHits[3]!))
  expect([now().chosenId, show.mock.lastCall]).toEqual([idOf(3), [3]])
})
