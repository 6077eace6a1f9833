import { createSource } from '@heliaster/core/kit'
import type { AudioHash, Kit, Source } from '@heliaster/core/kit'

import { makeId } from '../../../documents/make-id'
import { aKitOf, aPad, audio, info } from '../../../testing/a-kit'
import { libraryView } from './library-view'
import { takeBack, takeOut } from './out-and-back'
import { deletionWarning, favourSounds, hearSound, judgeSound, removeSounds, setSounds, usedWords } from './sound-actions'

const mockEditSounds = jest.fn()
const mockHear = jest.fn()
const mockNotify = jest.fn()
const mockSave = jest.fn()
const mockBytes = jest.fn()
const mockTake = jest.fn()
const mockFetchAll = jest.fn(async (_kind: string): Promise<void> => undefined)
let mockFiles: File[]
jest.mock('../../../audio/engine/sound', () => ({ hearClip: (...given: unknown[]) => mockHear(...given) as unknown }))
jest.mock('../../../audio/files/audio-files', () => ({ audioBytes: (hash: string) => mockBytes(hash) as unknown }))
jest.mock('../../../audio/import/import-pool', () => ({
  createImportPool: () => ({ take: (file: File) => mockTake(file) as unknown, close: () => undefined }),
}))
jest.mock('../../../documents', () => ({
  kits: { store: { getState: () => ({ entries: mockKits, elsewhere: mockElsewhere }) } },
  device: { filesKept: () => undefined, fetchAll: (kind: string) => mockFetchAll(kind) },
}))
jest.mock('../../../documents/library', () => ({
  editSounds: (...given: unknown[]) => mockEditSounds(...given) as unknown,
  deleteSounds: async (ids: string[]) => void mockEditSounds('delete', ids),
  undoLibrary: () => void mockEditSounds('undo'),
}))
jest.mock('../../../ui/device/choose-files', () => ({
  chooseFiles: async () => mockFiles,
  saveFile: (...given: unknown[]) => mockSave(...given) as unknown,
}))
jest.mock('../../../ui/layout/notices', () => ({ notify: (...given: unknown[]) => mockNotify(...given) as unknown })) // prettier-ignore

const sound = (name: string, given: Partial<Source> = {}) => createSource(makeId, audio, info, name, given)
const kit = (name: string, turns: number): Kit => ({ ...aKitOf(aPad(turns)), name })
let mockKits: Record<string, { doc: Kit }>
let mockElsewhere = {}
const said = () => mockNotify.mock.lastCall![0] as string

beforeEach(() => {
  jest.clearAllMocks()
  mockKits = {}
  mockElsewhere = {}
  mockFiles = [new File(['x'], 'changed.wav')]
  mockHear.mockResolvedValue(undefined)
})

test('a sound is heard at the list’s level and noted as heard; one that cannot be had says why', async () => {
  libraryView.setState({ hearDb: -12 })
  hearSound(sound('plank'))
  expect(mockHear).toHaveBeenCalledWith(expect.objectContaining({ audio, startFrame: 0, endFrame: info.frames }), -12)
  mockHear.mockRejectedValue(new Error('plank.wav is gone.'))
  hearSound(sound('plank'))
  await Promise.resolve().then(() => undefined)
  expect(said()).toBe('plank.wav is gone.')
})

test('verdicts go round, or are given; several are set in one step, alike or each for itself', () => {
  const [a, b] = [sound('a'), sound('b')]
  const verdicts = (['open', 'keep', 'pass'] as const).map((verdict) => {
    judgeSound({ ...a, verdict })
    return (mockEditSounds.mock.lastCall as [{ edits: { fields: { verdict: string } }[] }[]])[0][0]!.edits[0]!.fields.verdict
  })
  expect(verdicts).toEqual(['keep', 'pass', 'open'])
  judgeSound(a, 'pass')
  favourSounds([a, b], true)
  const edit = (id: string, fields: object) => ({ id, edits: [{ type: 'setSource', fields }] })
  expect(mockEditSounds.mock.calls.slice(3)).toEqual([[[edit(a.id, { verdict: 'pass' })]], [[edit(a.id, { favourite: true }), edit(b.id, { favourite: true })]]])
  setSounds([a, b], ({ name }, index) => ({ name: `${name} ${index}` }))
  expect(mockEditSounds).toHaveBeenLastCalledWith([edit(a.id, { name: 'a 0' }), edit(b.id, { name: 'b 1' })])
}) // prettier-ignore

test('who uses a sound is said, and before it goes what that would touch', async () => {
  const [a, other] = [sound('a'), { ...sound('b'), audio: 'e'.repeat(64) as AudioHash }]
  expect([usedWords(a), deletionWarning([a])]).toEqual(['No kit uses it yet.', ''])
  mockElsewhere = { two: {} } // of a kit that is not here nobody knows
  for (const words of [usedWords(a), deletionWarning([a])]) expect(words).toMatch(/^No kit on this device uses/)
  mockElsewhere = {}
  mockKits = { one: { doc: kit('Low Tide', 1) } }
  expect(usedWords(a)).toMatch(/^Used by .*Low Tide.*\.$/)
  expect(deletionWarning([a])).toMatch(/^This sound is used by .*Low Tide.* only the list loses it\.$/)
  expect(deletionWarning([a, other])).toMatch(/^Some of these are used by .* only the list loses them\.$/)
  expect(deletionWarning([other])).toBe('')
  await removeSounds([a])
  expect([mockEditSounds.mock.lastCall, said()]).toEqual([['delete', [a.id]], '“a” is off the list.'])
  ;(mockNotify.mock.lastCall as [string, { run(): void }])[1].run()
  expect(mockEditSounds).toHaveBeenLastCalledWith('undo')
  await removeSounds([a, other])
  expect(said()).toBe('2 sounds are off the list.')
})

test('a file is given out as it is, under its name, or it is said why not', async () => {
  mockBytes.mockResolvedValueOnce('its bytes')
  await takeOut(sound('plank'))
  expect(mockSave).toHaveBeenCalledWith(info.name, 'its bytes', 'application/octet-stream')
  mockBytes.mockRejectedValueOnce(new Error('plank.wav is gone.'))
  await takeOut(sound('plank'))
  expect(said()).toBe('plank.wav is gone.')
})

describe('a changed version', () => {
  const hash = 'e'.repeat(64)
  const taken = (frames: number, sampleRateHz = 48_000) => ({ ok: true, hash, measured: {}, info: { ...info, frames, sampleRateHz } })
  const marked = () => sound('plank', { markers: [{ id: 'm', frame: 1000, endFrame: 2001 }, { id: 'n', frame: 47_999 }] as never })
  const edited = () => mockEditSounds.mock.lastCall as [{ id: string; edits: { type: string; markers?: { frame: number; endFrame?: number }[] }[] }[], { id: string; edits: object[] }[]] // prettier-ignore

  test('takes the place of the file everywhere in one step, and says how many clips read it now', async () => {
    mockTake.mockResolvedValue(taken(48_000))
    mockKits = { one: { doc: kit('Low Tide', 2) }, two: { doc: kit('Other', 1) }, none: { doc: kit('Empty', 0) } }
    await takeBack(marked())
    const [[own], users] = edited()
    expect(own!.edits).toEqual([{ type: 'setAudio', audio: hash, info: taken(48_000).info, measured: {} }])
    expect(users.map(({ edits }) => edits)).toEqual(Array(2).fill([{ type: 'replaceAudio', from: audio, to: hash, info: taken(48_000).info }]))
    expect(said()).toBe('“plank” has its changed version. 3 clips on pads now read it.')
  })

  test('reaches the kits of the server as well; where it is away that is said', async () => {
    mockTake.mockResolvedValue(taken(48_000))
    mockElsewhere = { one: { id: 'one' } }
    mockFetchAll.mockImplementationOnce(async () => {
      mockElsewhere = {}
      mockKits = { one: { doc: kit('Low Tide', 2) } }
    })
    await takeBack(marked())
    expect([mockFetchAll.mock.lastCall, said()]).toEqual([['kit'], '“plank” has its changed version. 2 clips on pads now read it.'])
    mockElsewhere = { two: { id: 'two' } }
    mockFetchAll.mockRejectedValueOnce(new Error('away'))
    await takeBack(marked())
    expect(said()).toMatch(/2 clips on pads now read it. Kits that are only on the server could not be reached/)
  })

  test('at another rate keeps markers at their seconds, within the file', async () => {
    mockTake.mockResolvedValue(taken(96_000, 96_000))
    mockKits = { one: { doc: kit('Low Tide', 1) } }
    await takeBack(marked())
    expect(edited()[0][0]!.edits[1]!.markers).toEqual([{ id: 'm', frame: 2000, endFrame: 4002 }, { id: 'n', frame: 95_998 }])
    expect(said()).toBe('“plank” has its changed version. 1 clip on pads now read it.')
    mockTake.mockResolvedValue(taken(24_000, 44_100))
    await takeBack(marked())
    expect(edited()[0][0]!.edits[1]!.markers![1]!.frame).toBe(23_999)
  })

  test.each([[24_000, /It is 0\.500 s shorter: clips that reached beyond its end now stop there/], [144_000, /It is 2\.000 s longer; clips keep their places/], [48_020, /changed version\.$/]] as const)(
    'of %s frames says how its length differs, where it does',
    async (frames, words) => {
      mockTake.mockResolvedValue(taken(frames))
      await takeBack(sound('plank'))
      expect(said()).toMatch(words)
    },
  )

  test('that is none, the same, or cannot be read changes nothing', async () => {
    mockFiles = []
    await takeBack(sound('plank'))
    expect([mockTake.mock.calls.length, mockNotify.mock.calls.length]).toEqual([0, 0])
    mockFiles = [new File(['x'], 'changed.wav')]
    mockTake.mockResolvedValueOnce({ ...taken(48_000), hash: audio })
    await takeBack(sound('plank'))
    expect(said()).toMatch(/the same, bit for bit/)
    mockTake.mockResolvedValueOnce({ ok: false, reason: 'It is cut off.' })
    await takeBack(sound('plank'))
    expect(said()).toBe('changed.wav: It is cut off.')
    expect(mockEditSounds).not.toHaveBeenCalled()
  })
}) // prettier-ignore
