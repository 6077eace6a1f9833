import { kitNow } from '../engine/sound'
import { aKitOf, aPad } from '../../testing/a-kit'
import { asPlayed, playedBy } from './as-played'

const mockWorked = jest.fn((_: unknown, clip: object) => ({ ...clip, audio: 'worked' }))
jest.mock('../engine/worked', () => ({ workedMatter: async () => ({ workedClip: mockWorked }) }))
jest.mock('../engine/sound', () => ({ kitNow: jest.fn() }))

const kit = { ...aKitOf(aPad(1)), tempoBpm: 96 }
const [clip] = Object.values(kit.pads[0]!.bands[0]!.turns[0]!.clips) as [never]
const step = (values: object, bypass = false) => ({ id: 's', kind: 'time', values, bypass })

test('a clip that is worked is looked at and measured as it is played; one that is not, or whose steps are off, as it is', async () => {
  jest.mocked(kitNow).mockReturnValue(kit)
  expect(await asPlayed(clip)).toBe(clip)
  expect(await asPlayed({ ...(clip as object), process: [step({ lengthPercent: 200 }, true)] } as never)).not.toMatchObject({
    audio: 'worked',
  })
  expect(await asPlayed({ ...(clip as object), process: [step({ lengthPercent: 200 })] } as never)).toMatchObject({ audio: 'worked' })
  expect(mockWorked).toHaveBeenCalledTimes(1)
})

test('it is another one at another tempo only where its length is in beats', () => {
  jest.mocked(kitNow).mockReturnValue(kit)
  expect(playedBy({ ...(clip as object), process: [step({ beats: 2 })] } as never)).toBe('96')
  expect(playedBy({ ...(clip as object), process: [step({ lengthPercent: 200 })] } as never)).toBe('')
})

test('without a kit that is open it is as recorded', async () => {
  jest.mocked(kitNow).mockReturnValue(undefined)
  const worked = { ...(clip as object), process: [step({ lengthPercent: 200 })] } as never
  expect(await asPlayed(worked)).toBe(worked)
})
