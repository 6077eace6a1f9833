import type { Clip, Groove, Kit, Pad, PadId } from '@heliaster/core/kit'

import { aGroovyKit } from '../../testing/a-groove'
import { aKitOf, aPad, audio } from '../../testing/a-kit'
import type * as Sound from './sound'

const mockPlayer = {
  load: jest.fn(),
  strike: jest.fn(() => false),
  release: jest.fn(),
  resume: jest.fn(async () => undefined),
  stopGroove: jest.fn(),
  beginGroove: jest.fn(),
  losses: jest.fn(() => ({ lateBlocks: 0 })),
  seeClock: jest.fn(),
  takeSounded: jest.fn((): object[] => []),
  takePeaks: jest.fn((): number[] | undefined => undefined),
  takeBusPeak: jest.fn((): number | undefined => undefined),
  takeReduction: jest.fn((): number | undefined => undefined),
  context: { state: 'running' },
  sleep: { rests: jest.fn(() => false), onWake: jest.fn() },
}
let mockStart = async (): Promise<typeof mockPlayer> => mockPlayer
jest.mock('./player-later', () => ({ playerLater: async () => ({ createPlayer: () => mockStart() }) }))
jest.mock('./outputs-later', () => ({ outputsLater: async () => ({ takeUpOutputs: () => undefined }) }))
jest.mock('../files/audio-files', () => ({
  decodedAudio: async (hash: string) => (hash.startsWith('f') ? Promise.reject(new Error('gone')) : {}),
}))
jest.mock('../workers/workers', () => ({ coreWork: () => undefined }))

let engine: typeof Sound
let now = 0
const kit = aGroovyKit()
const [oar] = kit.pads as [Pad]
type Loaded = [kit: Kit, plays: string | undefined, of: Kit]
const loaded = () => mockPlayer.load.mock.lastCall as unknown as Loaded
const audition = () => loaded()[0].pads.at(-1)!
const struck = () => mockPlayer.strike.mock.lastCall as unknown as [{ padId: PadId; velocity: number }]
const settle = () => jest.advanceTimersByTimeAsync(0)

beforeEach(() => {
  jest.clearAllMocks()
  jest.useFakeTimers({ doNotFake: ['performance'] })
  mockStart = async () => mockPlayer
  now = 1000
  jest.spyOn(performance, 'now').mockImplementation(() => now)
  Object.assign(performance, { mark: jest.fn() })
  jest.isolateModules(() => void (engine = jest.requireActual<typeof Sound>('./sound')))
})
afterEach(() => {
  jest.clearAllTimers()
  jest.restoreAllMocks()
  jest.useRealTimers()
})
/** The engine with a kit open and taken up. */
async function open(of = kit) {
  engine.playKit(of)
  await settle()
  mockPlayer.load.mockClear()
}

test('a kit is taken up once it is drawn, at once where it is struck before that, and a change of it without delay', async () => {
  await engine.startSound()
  engine.playKit(kit)
  expect(mockPlayer.load).not.toHaveBeenCalled()
  engine.strikePad({ padId: oar.id, velocity: 90 })
  expect([loaded()[2], mockPlayer.load.mock.calls.length]).toEqual([kit, 1])
  await settle()
  expect(mockPlayer.load).toHaveBeenCalledTimes(1)
  const changed = { ...kit, name: 'Changed' }
  engine.playKit(changed)
  expect([loaded()[2], engine.kitNow()]).toEqual([changed, changed])
  engine.playKit(undefined)
  engine.strikePad({ padId: oar.id, velocity: 90 })
  expect([mockPlayer.load.mock.calls.length, engine.kitNow()]).toEqual([2, undefined])
})

test('the engine starts once, takes up what was opened meanwhile, and sounds from the first touch on', async () => {
  const touched = jest.spyOn(window, 'addEventListener')
  engine.playKit(kit)
  engine.playKit({ ...kit, name: 'Changed' })
  await settle()
  expect(loaded()[2].name).toBe('Changed')
  await engine.startSound()
  expect(engine.sound.getState().player).toBe(mockPlayer)
  await engine.startSound()
  expect(touched.mock.calls.map(([type]) => type)).toEqual(['pointerdown', 'keydown', 'touchend'])
  touched.mock.calls.forEach(([, wake]) => (wake as () => void)())
  expect(mockPlayer.resume).toHaveBeenCalledTimes(3)
})

test('an engine that cannot start says why', async () => {
  mockStart = () => Promise.reject(new Error('This browser has no AudioWorklet.'))
  await engine.startSound()
  expect(engine.sound.getState()).toEqual({ problem: 'This browser has no AudioWorklet.' })
})

test('all that sounded is told in its order, and a block that was late leaves its mark once', async () => {
  const [told, other] = [jest.fn(), jest.fn()]
  await open()
  const stop = engine.onSounded(told)
  engine.onSounded(other)
  mockPlayer.takeSounded.mockReturnValueOnce([{ frame: 1 }, { frame: 2 }])
  mockPlayer.losses.mockReturnValue({ lateBlocks: 2 })
  await jest.advanceTimersByTimeAsync(40)
  expect(told.mock.calls).toEqual([[[{ frame: 1 }, { frame: 2 }]]])
  expect((performance.mark as jest.Mock).mock.calls).toEqual([['heliaster-late', { detail: 2 }]])
  stop()
  mockPlayer.takeSounded.mockReturnValueOnce([{ frame: 3 }])
  await jest.advanceTimersByTimeAsync(40)
  expect([told.mock.calls.length, other.mock.calls.length]).toEqual([1, 2])
  mockPlayer.losses.mockReturnValue({ lateBlocks: 0 })
})

test('an engine that rests is not looked at until it wakes', async () => {
  await open()
  mockPlayer.sleep.rests.mockReturnValue(true)
  await jest.advanceTimersByTimeAsync(100)
  mockPlayer.takeSounded.mockClear()
  await jest.advanceTimersByTimeAsync(1000)
  expect(mockPlayer.takeSounded).not.toHaveBeenCalled()
  mockPlayer.sleep.rests.mockReturnValue(false)
  ;(mockPlayer.sleep.onWake.mock.lastCall as [() => void])[0]()
  await jest.advanceTimersByTimeAsync(100)
  expect(mockPlayer.takeSounded.mock.calls.length).toBeGreaterThan(3)
})

test('the groove that was chosen plays, the song where that was, else the kit’s first; a choice made again changes nothing', async () => {
  await open({ ...kit, grooves: [...kit.grooves, { ...kit.grooves[0]!, id: 'groove-2' as never }] })
  const plays = (given: Parameters<typeof engine.playGrooveOf>[0]) => {
    engine.playGrooveOf(given)
    return loaded()[1]
  }
  expect([plays('groove-2' as never), plays('song'), plays('gone' as never), plays(undefined)]).toEqual(['groove-2', 'song', 'groove-ebb', 'groove-ebb'])
  mockPlayer.load.mockClear()
  engine.playGrooveOf(undefined)
  expect(mockPlayer.load).not.toHaveBeenCalled()
}) // prettier-ignore

test('a kit that is tried is heard in the place of the open one until it is let go of, or the kit changes', async () => {
  await open()
  const tried = { ...kit, name: 'Tried' }
  const told = jest.fn()
  const stop = engine.onLoaded(told)
  engine.tryKit(tried)
  expect(loaded().map((one) => (one as Kit).name)).toEqual(['Tried', undefined, kit.name])
  engine.tryKit(undefined)
  expect(loaded()[0].name).toBe(kit.name)
  engine.tryKit(tried)
  engine.playKit({ ...kit, tempoBpm: 99 })
  expect(loaded()[0].name).toBe(kit.name)
  stop()
  engine.tryKit(undefined)
  expect(told).toHaveBeenCalledTimes(4)
})

test('a groove is heard on the open kit without being one of it; letting go of none leaves the kit’s own alone', async () => {
  await open()
  engine.hearGroove(undefined)
  expect(mockPlayer.stopGroove).not.toHaveBeenCalled()
  const ready: Groove = { ...kit.grooves[0]!, id: 'ready' as never }
  engine.hearGroove(ready)
  expect([loaded()[0].grooves, loaded()[1], mockPlayer.beginGroove.mock.calls.length]).toEqual([[ready], 'ready', 1])
  engine.hearGroove(undefined)
  expect([loaded()[0].grooves, mockPlayer.stopGroove.mock.calls.length, mockPlayer.beginGroove.mock.calls.length]).toEqual([kit.grooves, 2, 1])
}) // prettier-ignore

test('a strike that waits for its sound is told of, one that sounds is not', async () => {
  await open()
  const told = jest.fn()
  const stop = engine.onWaiting(told)
  expect(engine.strikePad({ padId: oar.id, velocity: 90 })).toBe(false)
  mockPlayer.strike.mockReturnValue(true)
  expect(engine.strikePad({ padId: oar.id, velocity: 90 })).toBe(true)
  stop()
  engine.strikePad({ padId: oar.id, velocity: 90 })
  expect(told.mock.calls).toEqual([[oar.id]])
  engine.releasePad(oar.id, 7, 480)
  expect(mockPlayer.release).toHaveBeenCalledWith(oar.id, 7, 480)
  mockPlayer.strike.mockReturnValue(false)
})

describe('heard beside the kit', () => {
  const clip = { ...(Object.values(oar.bands[0]!.turns[0]!.clips)[0] as Clip), gainDb: -3 }

  test('a clip sounds by itself at the level it is listened to, with a kit open or none', async () => {
    await engine.startSound()
    await engine.hearClip(clip, -6)
    const [sounded] = Object.values(audition().bands[0]!.turns[0]!.clips) as [Clip]
    expect([sounded.audio, sounded.gainDb, struck()[0].padId, struck()[0].velocity]).toEqual([audio, -9, audition().id, 127])
    await open()
    await engine.hearClip(clip)
    expect(loaded()[0].pads.map(({ id }) => id)).toEqual([...kit.pads.map(({ id }) => id), struck()[0].padId])
    await expect(engine.hearClip({ ...clip, audio: 'f'.repeat(64) as never })).rejects.toThrow('gone')
  })

  test('a ray sounds without the others, even of a pad that is muted; it answers no note', async () => {
    await open()
    const two = { ...oar, own: { ...oar.own, mute: true }, rays: [oar.rays[0]!, { ...oar.rays[0]!, id: 'ray-2' as never }] }
    engine.hearRay(two, 'ray-2' as never, 40)
    expect(audition().rays.map(({ mute }) => mute)).toEqual([true, false])
    expect([audition().own.mute, audition().notes, struck()[0].velocity]).toEqual([false, [], 40])
  })

  test('a version of a pad sounds as loud as is asked, over what its rays have', async () => {
    await open()
    const louder = {
      ...oar,
      rays: [
        { ...oar.rays[0]!, values: { gainDb: 2 } },
        { ...oar.rays[0]!, id: 'ray-2' as never, values: {} },
      ],
    }
    engine.hearVersion(louder, -5)
    expect(audition().rays.map(({ values }) => values.gainDb)).toEqual([-3, -5])
    expect(struck()[0]).toMatchObject({ padId: audition().id, velocity: 100 })
  })

  test('a turn sounds whatever would be next, with all rays that have no cells of their own', async () => {
    const pad = aPad(3)
    await open(aKitOf(pad))
    const own = { ...pad.rays[0]!, id: 'own' as never, source: { kind: 'clips' as const, bands: [] } }
    const turn = pad.bands[0]!.turns[2]!
    engine.hearTurn({ ...pad, rays: [...pad.rays, own] }, turn, { ...pad.bands[0]!, fromVelocity: 90, blendVelocities: 8 })
    expect(audition().rays.map(({ id }) => id)).toEqual([pad.rays[0]!.id])
    expect(audition().bands).toMatchObject([{ fromVelocity: 1, blendVelocities: 0, turns: [turn] }])
  })

  test('without an engine nothing is heard, and nothing fails', async () => {
    await engine.hearClip(clip)
    engine.hearRay(oar, oar.rays[0]!.id)
    engine.hearVersion(oar)
    engine.hearTurn(oar, oar.bands[0]!.turns[0]!, oar.bands[0]!)
    engine.hearGroove(kit.grooves[0])
    expect([engine.strikePad({ padId: oar.id, velocity: 1 }), engine.takenByEffect('x' as never)]).toEqual([false, 0])
    expect(mockPlayer.strike).not.toHaveBeenCalled()
  })
})

describe('meters', () => {
  test('stand at the highest and fall back by 26 dB a second; all who look at once read the engine once', async () => {
    await open()
    mockPlayer.takePeaks.mockReturnValueOnce([0.5, 0.1])
    expect([...engine.raysLevel(oar.id).slice(0, 3)]).toEqual([0.5, expect.closeTo(0.1, 9), 0])
    now += 5
    engine.raysLevel(oar.id)
    expect(mockPlayer.takePeaks).toHaveBeenCalledTimes(1)
    now += 995
    expect(20 * Math.log10(engine.raysLevel(oar.id)[0]! / 0.5)).toBeCloseTo(-26, 6)
    mockPlayer.takePeaks.mockReturnValueOnce([0.9])
    now += 20
    expect(engine.raysLevel(oar.id)[0]).toBeCloseTo(0.9, 9)
  })

  test('a pad sounds from when it is heard until a moment after it has died away', async () => {
    await open()
    expect(engine.padSounds(oar.id)).toBe(false)
    now += 50
    mockPlayer.takePeaks.mockReturnValueOnce([0.0009])
    expect(engine.padSounds(oar.id)).toBe(false)
    now += 50
    mockPlayer.takePeaks.mockReturnValueOnce([0.2])
    expect(engine.padSounds(oar.id)).toBe(true)
    now += 139
    expect(engine.padSounds(oar.id)).toBe(true)
    now += 2
    expect(engine.padSounds(oar.id)).toBe(false)
  })

  test('a bus and the master have their own; what an effect takes is told', async () => {
    await open()
    const of: Record<string, number> = { 'bus-1': 0.25 }
    mockPlayer.takeBusPeak.mockImplementation(((id?: string) => (id ? of[id] : 0.8)) as never)
    expect([engine.busLevel('bus-1' as never), engine.busLevel()]).toEqual([0.25, 0.8])
    mockPlayer.takeBusPeak.mockReturnValue(0)
    now += 1000
    expect(20 * Math.log10(engine.busLevel() / 0.8)).toBeCloseTo(-26, 6)
    mockPlayer.takeReduction.mockReturnValueOnce(4)
    expect(engine.takenByEffect('insert-1' as never, 'bus-1' as never)).toBe(4)
    expect(mockPlayer.takeReduction).toHaveBeenCalledWith('insert-1', 'bus-1')
  })
})
