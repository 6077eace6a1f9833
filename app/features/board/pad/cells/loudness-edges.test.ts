/** @jest-environment node */
import { createPad, wholeClip } from '@heliaster/core/kit'
import { asBands } from '@heliaster/core/place'
import { hashOf, testIds } from '@heliaster/core/kit/testing'

import { bandsByLoudness } from './loudness-edges'

let mockLevels: Readonly<Record<string, number>> = {}
jest.mock('../../../../audio/files/as-played', () => ({ asPlayed: (clip: unknown) => Promise.resolve(clip) }))
jest.mock('../../../../audio/files/audio-files', () => ({ decodedAudio: (hash: string) => Promise.resolve({ audio: hash }) }))
jest.mock('../../../../audio/workers/workers', () => ({
  coreWork: () => ({ clipLoudness: (hash: string, { gainDb }: { gainDb: number }) => Promise.resolve(mockLevels[hash]! + gainDb) }),
}))

/** Edges of bands of one clip each, whose recordings are so loud and are raised by so many dB. */
async function edgesOf(levels: readonly number[], gains: readonly number[] = []) {
  const makeId = testIds()
  const [ray] = createPad(makeId, {}, 36).rays
  const hashes = levels.map((_, i) => hashOf('abcdef'[i]!))
  mockLevels = Object.fromEntries(levels.map((level, i) => [hashes[i], level]))
  const clips = hashes.map((hash, i) => ({ ...wholeClip(hash, { frames: 100, channels: 1 }), gainDb: gains[i] ?? 0 }))
  const bands = asBands(makeId, ray.id, clips)
  return (await bandsByLoudness({ isOwn: false, ray, bands } as never))?.map(({ fromVelocity }) => fromVelocity)
}

test('bands border where loudness lies halfway', async () => {
  expect(await edgesOf([-40, -25, -12])).toEqual([1, 46, 89])
})

test('nothing is moved where a louder band is no louder, where all are of one level, or where one has no sound', async () => {
  expect(await edgesOf([-20, -25, -12])).toBeUndefined()
  expect(await edgesOf([-20, -25])).toBeUndefined()
  expect(await edgesOf([-40, -20, -25])).toBeUndefined()
  expect(await edgesOf([-30, -20, -10], [20, 10.02, 0.04])).toBeUndefined()
  expect(await edgesOf([-30, -Infinity, -10])).toBeUndefined()
})
