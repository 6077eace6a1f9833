import { planByNames, readNames } from '@heliaster/core/place'
import { createSource } from '@heliaster/core/kit'
import type { AudioHash, Clip, Source } from '@heliaster/core/kit'
import { act, renderHook } from '@testing-library/react'

import { makeId } from '../../documents/make-id'
import { info } from '../../testing/a-kit'
import { hearPairs, useLikeness } from './use-likeness'
import { useWrongFiles } from './use-wrong-files'

const mockLikeness = jest.fn()
let mockRates: Record<string, number> = {}
jest.mock('../../audio/files/audio-files', () => ({
  decodedAudio: async (hash: string) => {
    if (hash.startsWith('f')) throw new Error('gone')
    return { audio: { sampleRateHz: mockRates[hash[0]!] ?? 48_000, channels: [new Float32Array(96_000).fill(hash.charCodeAt(0))] } }
  },
}))
jest.mock('../../audio/workers/workers', () => ({
  coreWork: () => ({ strikeLikeness: (...given: unknown[]) => mockLikeness(...given) as unknown }),
}))

const file = (name: string, hash = 'a'): Source => createSource(makeId, hash.repeat(64) as AudioHash, { ...info, name }, name)
const settle = () => act(async () => void (await new Promise((resolve) => setTimeout(resolve, 0))))

beforeEach(() => {
  jest.clearAllMocks()
  mockRates = {}
  mockLikeness.mockResolvedValue(0.9)
})

test('pairs are heard once each, by their beginnings; what differs in rate or cannot be told is left out', async () => {
  mockRates = { c: 44_100 }
  mockLikeness.mockImplementation(async (_one, clip: Clip) => (clip.audio.startsWith('b') ? undefined : 0.8))
  const files = [file('one', 'a'), file('two', 'b'), file('three', 'c'), file('four', 'd')]
  const known = await hearPairs(files, [[0, 3], [0, 3], [0, 2], [1, 3]])
  expect([...known]).toEqual([['0 3', 0.8]])
  expect(mockLikeness).toHaveBeenCalledTimes(2)
  const [sound, clip] = mockLikeness.mock.calls[0] as [{ channels: Float32Array[] }, Clip]
  expect([sound.channels[0]!.length, clip.endFrame]).toEqual([24_000, 24_000])
}) // prettier-ignore

describe('how alike files sound', () => {
  /** Names and lengths that leave open which are the same strike: a microphone and a take might be either. */
  const named = ['oar a 1.wav', 'oar b 1.wav', 'oar a 2.wav', 'oar b 2.wav'].map((name) => ({ name }))
  const files = named.map(({ name }, i) => file(name, 'abcd'[i]))

  test('is listened to where names leave it open, and said while it lasts', async () => {
    const { result } = renderHook(({ of, names }) => useLikeness(of, names), { initialProps: { of: files, names: named } })
    expect(result.current).toEqual({ likeness: undefined, isListening: true })
    await settle()
    expect(result.current.isListening).toBe(false)
    expect([result.current.likeness!(0, 1), result.current.likeness!(0, 0)]).toEqual([0.9, undefined])
    expect(mockLikeness).toHaveBeenCalledTimes(12) // sixteen pairs, four of them twice
  })

  test('is not asked of files whose names say all', async () => {
    const [of, plain] = [[files[0]!], [{ name: 'hull.wav' }]]
    const { result } = renderHook(() => useLikeness(of, plain))
    expect(result.current).toEqual({ likeness: undefined, isListening: false })
    await settle()
    expect(mockLikeness).not.toHaveBeenCalled()
  })

  test('is nothing where a file cannot be heard: names alone are read then', async () => {
    const gone = files.map((one) => ({ ...one, audio: 'f'.repeat(64) as AudioHash }))
    const { result } = renderHook(() => useLikeness(gone, named))
    await settle()
    expect(result.current).toEqual({ likeness: undefined, isListening: false })
  })
})

/** Letters of files that are here; those of `f` are gone. */
const FIRST = 'g'.charCodeAt(0)

describe('wrong files', () => {
  /** Two microphones, six takes: each strike is heard by both. */
  const names = [1, 2, 3, 4, 5, 6].flatMap((take) => ['close', 'room'].map((mic) => ({ name: `hull ${mic} rr${take}.wav` })))
  const files = names.map(({ name }, i) => file(name, String.fromCharCode(FIRST + i)))
  const plan = planByNames(names, readNames(names))
  /** Which file a sound is of: it is filled with the letter of its file. */
  const placeOf = ({ channels }: { channels: Float32Array[] }) => channels[0]![0]! - FIRST

  test('are found by sound once they are asked for: two that lie in each other’s place', async () => {
    const struck = (place: number) => ({ 1: 1, 3: 0 })[place] ?? Math.floor(place / 2)
    mockLikeness.mockImplementation(async (one, _clip, other) => (struck(placeOf(one)) === struck(placeOf(other)) ? 0.95 : 0.1))
    const { result } = renderHook(() => useWrongFiles(files, plan, true))
    expect(result.current).toEqual([])
    await settle()
    expect(result.current).toMatchObject([{ kind: 'exchanged', file: 1, other: 3 }])
  })

  test('are none where each sounds as it is named', async () => {
    mockLikeness.mockImplementation(async (one, _clip, other) => (Math.floor(placeOf(one) / 2) === Math.floor(placeOf(other) / 2) ? 0.95 : 0.1))
    const { result } = renderHook(() => useWrongFiles(files, plan, true))
    await settle()
    expect(mockLikeness).toHaveBeenCalled()
    expect(result.current).toEqual([])
  })

  test('are not looked for unasked, nor told of another plan', async () => {
    const { result, rerender } = renderHook(({ asked, of }) => useWrongFiles(files, of, asked), { initialProps: { asked: false, of: plan } })
    await settle()
    expect(mockLikeness).not.toHaveBeenCalled()
    rerender({ asked: true, of: { ...plan } })
    expect(result.current).toEqual([])
    await settle()
  })
}) // prettier-ignore
