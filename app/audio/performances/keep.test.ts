/** @jest-environment node */
import { hashAudio } from '@heliaster/core/audio'
import type { AudioHash, Kit, PadId, Performance } from '@heliaster/core/kit'

import { aKitOf, aPad, audio } from '../../testing/a-kit'
import { keepPassage, passageToHear, playedKit } from './keep'
import { drawnStrikes, resound, resoundedPads, resoundedWav, unanswered } from './resound'

interface Memory {
  kitsOf(passage: object): Kit[]
  performanceOf(passage: object, made: { name: string; hashOf(kit: Kit): AudioHash }): object | undefined
}
let mockMemory: Memory | undefined
let mockNames: string[]
let mockLacking: string[]
const mockBytes = new Map<string, Uint8Array>()
const mockKept = jest.fn()
const mockCreate = jest.fn()
const mockWork = {
  perform: jest.fn(),
  performedWav: jest.fn(),
  performedPads: jest.fn(),
  draws: jest.fn(),
  bring: jest.fn(),
  lacking: async (hashes: string[]) => hashes.filter((hash) => mockLacking.includes(hash)),
}
jest.mock('./remembering', () => ({ memoryOf: () => mockMemory }))
jest.mock('../../documents', () => ({
  performances: {
    create: (made: unknown) => mockCreate(made) as unknown,
    store: { getState: () => ({ entries: Object.fromEntries(mockNames.map((name, i) => [i, { doc: { name } }])) }) },
  },
}))
jest.mock('../files/audio-files', () => ({
  keepAudio: async (hash: string, name: string, bytes: Blob) => {
    mockKept(hash, name)
    mockBytes.set(hash, new Uint8Array(await bytes.arrayBuffer()))
  },
  audioBytes: async (hash: string) => mockBytes.get(hash)?.buffer ?? Promise.reject(new Error('It is gone.')),
}))
jest.mock('../workers/workers', () => ({ shipWork: () => mockWork })) // prettier-ignore

const passage = { fromFrame: 0, toFrame: 480, fromMs: 1, strikes: 1, padIds: [] }
const kit = (name: string): Kit => ({ ...aKitOf({ ...aPad(1), own: { name: 'Oar' } }), name })
const hashOf = (of: Kit) => hashAudio(new TextEncoder().encode(JSON.stringify(of)))
/** What was played on these kits. */
const remembers = (...kits: Kit[]): Memory => ({
  kitsOf: () => kits,
  performanceOf: (_passage, { name, hashOf: of }) => ({ name, segments: kits.map((one) => ({ kit: of(one) })) }),
})

beforeEach(() => {
  jest.clearAllMocks()
  mockBytes.clear()
  mockNames = []
  mockLacking = []
})

test('a passage is kept with the texts of the kits it was played on, under the first free number', async () => {
  const [first, second] = [kit('Low Tide'), kit('Ebb')]
  mockMemory = remembers(first, second)
  mockNames = ['Low Tide 1', 'Low Tide 3']
  const made = (await keepPassage(first, passage)) as Performance
  expect([made.name, made.segments.map((segment) => segment.kit)]).toEqual(['Low Tide 2', [hashOf(first), hashOf(second)]])
  expect(mockKept.mock.calls).toEqual([[hashOf(first), 'Low Tide as it was played.json'], [hashOf(second), 'Ebb as it was played.json']]) // prettier-ignore
  expect(mockCreate.mock.calls).toEqual([[made]])
})

test('what was played too long ago is not kept, and says what to do; nothing is kept of what is only heard', async () => {
  mockMemory = { kitsOf: () => [], performanceOf: () => undefined }
  expect(await keepPassage(kit('Low Tide'), passage)).toMatch(/^This was played too long ago.* within ten minutes\.$/)
  mockMemory = undefined
  expect(await keepPassage(kit('Low Tide'), passage)).toMatch(/^This was played too long ago/)
  expect(mockCreate).not.toHaveBeenCalled()
  expect(passageToHear(kit('Low Tide'), passage)).toBeUndefined()
  const one = kit('Low Tide')
  mockMemory = remembers(one)
  expect(passageToHear(one, passage)!.segments[0]!.kit).toBe(hashOf(one))
  expect(mockKept).not.toHaveBeenCalled()
  expect(await playedKit(hashOf(one))).toBe(one)
})

test('a kit that was played on is read from its text once; one that cannot be read says so', async () => {
  const one = kit(`Read ${Math.PI}`)
  mockBytes.set(hashOf(one), new TextEncoder().encode(JSON.stringify(one)))
  const read = await playedKit(hashOf(one))
  expect(read).toEqual(one)
  mockBytes.clear()
  expect(await playedKit(hashOf(one))).toBe(read)
  mockBytes.set('d'.repeat(64), new TextEncoder().encode('{"kind":"no kit"}'))
  await expect(playedKit('d'.repeat(64) as AudioHash)).rejects.toThrow(/^The kit that this was played on cannot be read\. /)
  await expect(playedKit('e'.repeat(64) as AudioHash)).rejects.toThrow('It is gone.')
})

describe('sounded again', () => {
  const played = kit('Played')
  const performance = { segments: [{ kit: hashOf(played) }, { kit: hashOf(played) }], events: [{ type: 'strike', padId: played.pads[0]!.id }, { type: 'strike', padId: 'gone' as PadId }, { type: 'move' }] } as unknown as Performance // prettier-ignore

  beforeEach(() => {
    mockBytes.set(hashOf(played), new TextEncoder().encode(JSON.stringify(played)))
    mockBytes.set(audio, Uint8Array.of(1, 2))
    mockLacking = [audio]
  })

  test('on the kits that it was played on, once all that is lacking has been brought', async () => {
    mockWork.perform.mockResolvedValue('sound')
    expect(await resound({ performance, on: { as: 'played' }, seed: 7, only: [played.pads[0]!.id] })).toBe('sound')
    expect(mockWork.bring.mock.calls).toEqual([[audio, mockBytes.get(audio)!.buffer]])
    const [asked] = mockWork.perform.mock.lastCall as [{ kits: Map<string, Kit>; kit?: Kit; seed: number; only: PadId[] }]
    expect([[...asked.kits.keys()], asked.kit, asked.seed, asked.only]).toEqual([[hashOf(played)], undefined, 7, [played.pads[0]!.id]])
  })

  test('on another kit, by what of it is like what was played; a file for each pad is named by a kit', async () => {
    const other = { ...kit('Other'), pads: [{ ...played.pads[0]!, id: 'pad-other' as PadId }] }
    await resoundedPads({ performance, on: { as: 'kit', kit: other } }, other, 24 as never)
    const [asked, named, bits] = mockWork.performedPads.mock.lastCall as [{ kit: Kit; answers: [PadId, PadId][] }, Kit, number]
    expect([asked.kit, asked.answers, named, bits]).toEqual([other, [[played.pads[0]!.id, 'pad-other']], other, 24])
    expect(await unanswered(performance, other)).toEqual(['gone'])
    await resoundedWav({ performance, on: { as: 'played' } }, 16 as never)
    expect(mockWork.performedWav.mock.lastCall![1]).toBe(16)
  })

  test('strikes of one pad are drawn once their kit’s files are there; a file that is gone says so', async () => {
    await drawnStrikes({ kit: played } as never, 'Oar', 24 as never)
    expect([mockWork.bring.mock.calls.length, mockWork.draws.mock.lastCall]).toEqual([1, [{ kit: played }, 'Oar', 24]])
    mockBytes.delete(audio)
    await expect(resound({ performance, on: { as: 'played' } })).rejects.toThrow('It is gone.')
  })
})
