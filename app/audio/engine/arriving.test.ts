import type { Audio } from '@heliaster/core/audio'
import type { KitLoader } from '@heliaster/core/engine'
import { audioInUse } from '@heliaster/core/kit'
import type { AudioHash, Kit, PadId } from '@heliaster/core/kit'

import { aKitOf, aPad } from '../../testing/a-kit'
import type { Passing } from '../files/audio-files'
import { fetchFirst, loadWhenReady, onArrived } from './arriving'

/** Files that are being read, in the order in which they were asked for; each arrives when it is told to. */
const mockReading: { hash: string; arrive(): void; fail(words: string): void }[] = []
const mockMissing = jest.fn()
const mockDone = jest.fn()
const mockMuch = { is: false }
jest.mock('../files/audio-files', () => {
  const read = (hash: string) =>
    new Promise<{ audio: Audio }>((resolve, reject) =>
      mockReading.push({
        hash,
        arrive: () => resolve({ audio: { sampleRateHz: 48000, channels: [new Float32Array(10)] } }),
        fail: (words) => reject(new Error(words)),
      }),
    )
  return {
    decodedAudio: read,
    isTooMuchAtHand: () => mockMuch.is,
    passingAudio: async (hash: string, samples: number) => ({ ...(await read(hash)), done: () => mockDone(hash, samples) }),
    noteMissing: (hash: string, reason?: string) => mockMissing(hash, reason),
  }
})

const settle = async () => {
  for (let i = 0; i < 8; i++) await Promise.resolve()
}
const hashOf = (name: string) => name.padEnd(64, '0') as AudioHash
const ids = () => mockReading.map(({ hash }) => hash.replace(/0+$/, ''))

/** A kit of pads whose clips are of the files named. */
function aKit(...files: string[][]): Kit {
  return aKitOf(
    ...files.map((names) => {
      const pad = aPad(names.length)
      const rest = [...names]
      const bands = JSON.parse(JSON.stringify(pad.bands).replace(/b{64}/g, () => hashOf(rest.shift()!))) as typeof pad.bands
      return { ...pad, bands }
    }),
  )
}

/** A loader that takes what has come by then. */
function aLoader(kit: Kit) {
  const fresh = new Map<AudioHash, Passing>()
  const has = new Set<AudioHash>()
  const refused = new Set<AudioHash>()
  const load = jest.fn((_kit: Kit) => {
    for (const hash of fresh.keys()) has.add(hash)
    return true
  })
  const lacking = () => new Set(audioInUse(kit).filter((hash) => !has.has(hash)))
  return {
    loader: { load, lacking, refused: () => new Set(refused), isLaidOut: () => true } as unknown as KitLoader,
    fresh,
    has,
    load,
    refused,
  }
}

beforeEach(() => {
  mockReading.length = 0
  mockMissing.mockClear()
  mockDone.mockClear()
  mockMuch.is = false
})

test('files are read in the order of the pads, three at once, and the engine is told when all are there', async () => {
  const kit = aKit(['a1', 'a2'], ['c1'], ['d1', 'd2'])
  const { loader, fresh, load, has } = aLoader(kit)
  const arrived = jest.fn()
  const stop = onArrived(arrived)
  loadWhenReady(kit, undefined, loader, fresh)
  expect(ids()).toEqual(['a1', 'a2', 'c1'])
  mockReading[1].arrive()
  await settle()
  expect(ids()).toEqual(['a1', 'a2', 'c1', 'd1'])
  expect(load).toHaveBeenCalledTimes(1)
  for (const one of mockReading) one.arrive()
  await settle()
  mockReading[4].arrive()
  await settle()
  expect(has.size).toBe(5)
  expect(load).toHaveBeenCalledTimes(2)
  expect(arrived).toHaveBeenCalledTimes(1)
  stop()
  expect(fresh.size).toBe(0) // the engine has them
})

test('a pad that is struck before its sound is here comes first, and the strike follows its files', async () => {
  const kit = aKit(['a1', 'a2', 'a3', 'a4'], ['z1'])
  const { loader, fresh, has } = aLoader(kit)
  loadWhenReady(kit, undefined, loader, fresh)
  const sounds = jest.fn()
  expect(fetchFirst(loader, { padId: kit.pads[1].id, velocity: 100 }, sounds)).toBe(true)
  expect(ids()).toEqual(['a1', 'a2', 'a3', 'z1'])
  mockReading[3].arrive()
  await settle()
  expect(has.has(hashOf('z1'))).toBe(true)
  expect(sounds).toHaveBeenCalledTimes(1)
})

test('only the band that is struck is waited for', async () => {
  const kit = aKit(['soft', 'loud'])
  const [pad] = kit.pads
  const [first, second] = pad.bands[0].turns
  const bands = [
    { ...pad.bands[0], turns: [first] },
    { ...pad.bands[0], id: 'louder' as never, fromVelocity: 64, turns: [second] },
  ]
  const layered = { ...kit, pads: [{ ...pad, bands }] }
  const { loader, fresh, has } = aLoader(layered)
  loadWhenReady(layered, undefined, loader, fresh)
  has.add(hashOf('soft'))
  expect(fetchFirst(loader, { padId: pad.id, velocity: 20 }, () => undefined)).toBe(false)
  expect(fetchFirst(loader, { padId: pad.id, velocity: 120 }, () => undefined)).toBe(true)
})

test('a sound that comes much too late would be a surprise, and stays away', async () => {
  const kit = aKit(['late'])
  const { loader, fresh, has } = aLoader(kit)
  loadWhenReady(kit, undefined, loader, fresh)
  const sounds = jest.fn()
  const clock = jest.spyOn(performance, 'now').mockReturnValue(1000)
  fetchFirst(loader, { padId: kit.pads[0].id, velocity: 100 }, sounds)
  clock.mockReturnValue(2600)
  for (const one of mockReading) one.arrive()
  await settle()
  expect([has.size, sounds.mock.calls.length]).toEqual([1, 0])
  clock.mockRestore()
})

test('a file that cannot be had is noted with its reason, and the others go on', async () => {
  const kit = aKit(['gone', 'here'])
  const { loader, fresh, has } = aLoader(kit)
  loadWhenReady(kit, undefined, loader, fresh)
  mockReading[0].fail('It is gone.')
  mockReading[1].arrive()
  await settle()
  expect(mockMissing).toHaveBeenCalledWith(hashOf('gone'), 'It is gone.')
  expect([...has]).toEqual([hashOf('here')])
  expect(ids()).toEqual(['gone', 'here']) // and is not asked for again and again
})

test('sounds for which there is no memory are named until there is', () => {
  const kit = aKit(['large'])
  const { loader, fresh, refused } = aLoader(kit)
  refused.add(hashOf('large'))
  loadWhenReady(kit, undefined, loader, fresh)
  expect(mockMissing).toHaveBeenCalledWith(hashOf('large'), expect.stringContaining('no more memory'))
  refused.clear()
  loadWhenReady(kit, undefined, loader, fresh)
  expect(mockMissing).toHaveBeenLastCalledWith(hashOf('large'), undefined)
})

test('what found no room while older sounds ring is tried again soon', () => {
  jest.useFakeTimers()
  const kit = aKit(['a'])
  const { loader, fresh, load } = aLoader(kit)
  load.mockReturnValueOnce(false)
  loadWhenReady(kit, undefined, loader, fresh)
  expect(load).toHaveBeenCalledTimes(1)
  jest.advanceTimersByTime(200)
  expect(load).toHaveBeenCalledTimes(2)
  jest.advanceTimersByTime(2000)
  expect(load).toHaveBeenCalledTimes(2)
  jest.useRealTimers()
})

test('a large kit is laid out in slices, a pad that is struck before its turn at once, and each slice wants its files', () => {
  jest.useFakeTimers()
  const kit = aKit(['a'], ['b'], ['c'], ['d'])
  const laidOut = new Set<PadId>()
  const clock = jest.spyOn(performance, 'now')
  let now = 0
  clock.mockImplementation(() => now)
  const load = jest.fn<boolean, Parameters<KitLoader['load']>>((wanted, _choice, pace) => {
    const order = [...wanted.pads.filter(({ id }) => id === pace?.first), ...wanted.pads.filter(({ id }) => id !== pace?.first)]
    for (const { id } of order) {
      if (laidOut.has(id) || (id !== pace?.first && pace?.isOver())) continue
      laidOut.add(id)
      now += 20 // each takes longer than a slice
    }
    return wanted.pads.every(({ id }) => laidOut.has(id))
  })
  const lacking = () => new Set(kit.pads.filter(({ id }) => laidOut.has(id)).flatMap((pad) => audioInUse({ ...kit, pads: [pad] })))
  const loader = { load, lacking, refused: () => new Set(), isLaidOut: (id: PadId) => laidOut.has(id) } as unknown as KitLoader
  loadWhenReady(kit, undefined, loader, new Map())
  expect([laidOut.size, ids()]).toEqual([1, []])
  expect(fetchFirst(loader, { padId: kit.pads[3].id, velocity: 90 }, () => undefined)).toBe(true)
  expect([laidOut.has(kit.pads[3].id), laidOut.size, ids()]).toEqual([true, 2, ['d']])
  jest.advanceTimersByTime(50)
  expect([laidOut.size, load.mock.calls.length, ids()]).toEqual([4, 4, ['d']])
  jest.advanceTimersByTime(1000) // the screen stands: all others are read now
  expect(ids()).toEqual(['d', 'a', 'b'])
  expect(load).toHaveBeenCalledTimes(4)
  clock.mockRestore()
  jest.useRealTimers()
})

test('what is laid out when other sounds have come wants its files too', async () => {
  const kit = aKit(['a'], ['b'])
  const laidOut = new Set<PadId>()
  const load = jest.fn((wanted: Kit) => {
    laidOut.add(wanted.pads[laidOut.size > 0 ? 1 : 0].id) // one at a time
    return laidOut.size === 2
  })
  const fresh = new Map<AudioHash, Passing>()
  const lacking = () => new Set(kit.pads.filter(({ id }) => laidOut.has(id)).flatMap((pad) => audioInUse({ ...kit, pads: [pad] })))
  const loader = { load, lacking, refused: () => new Set(), isLaidOut: (id: PadId) => laidOut.has(id) } as unknown as KitLoader
  jest.useFakeTimers()
  loadWhenReady(kit, undefined, loader, fresh)
  expect(fetchFirst(loader, { padId: kit.pads[0].id, velocity: 90 }, () => undefined)).toBe(true)
  mockReading[0].arrive()
  await settle()
  expect(laidOut.size).toBe(2)
  jest.advanceTimersByTime(1000)
  expect(ids()).toContain('b')
  jest.useRealTimers()
})

test('no more is read while much of what came waits to be laid out, and all is there only when all of it is', async () => {
  const kit = aKit(Array.from({ length: 120 }, (_, i) => `n${i}-`))
  const { loader, fresh, has, load } = aLoader(kit)
  const mark = jest.fn()
  Object.assign(performance, { mark })
  jest.useFakeTimers({ doNotFake: ['performance'] })
  const arriveAll = async () => {
    for (const one of mockReading) {
      one.arrive() // reading the next is begun before this one ends
      await settle()
    }
  }
  loadWhenReady(kit, undefined, loader, fresh)
  jest.advanceTimersByTime(1000) // the screen stands
  load.mockImplementation(() => false) // there is no room to lay anything out
  await arriveAll()
  expect([mockReading.length < 110, fresh.size]).toEqual([true, mockReading.length])
  expect(mark).not.toHaveBeenCalled()
  load.mockImplementation(() => {
    for (const hash of fresh.keys()) has.add(hash)
    return true
  })
  jest.advanceTimersByTime(1000)
  await arriveAll()
  expect([mockReading.length, has.size, fresh.size]).toEqual([120, 120, 0])
  expect(mark.mock.calls).toEqual([['heliaster-all-arrived']])
  jest.useRealTimers()
  Reflect.deleteProperty(performance, 'mark')
})

test('of many files each only passes: it is given back once the engine has it, and not before; it is read once however often it is wanted', async () => {
  mockMuch.is = true
  const others = Array.from({ length: 30 }, (_, i) => `n${i}-`)
  const plain = aKit(['a', 'b'], others)
  const kit = { ...plain, audio: { [hashOf('a')]: { name: 'a.wav', sampleRateHz: 48000, frames: 10, channels: 2 } } }
  const { loader, fresh, has, load } = aLoader(kit)
  load.mockImplementation(() => true) // laid out, but without them
  loadWhenReady(kit, undefined, loader, fresh)
  for (let i = 0; i < 2; i++) expect(fetchFirst(loader, { padId: kit.pads[0].id, velocity: 90 }, () => undefined)).toBe(true)
  expect(ids()).toEqual(['a', 'b'])
  for (const one of mockReading) one.arrive()
  await settle()
  expect(mockDone).not.toHaveBeenCalled()
  has.add(hashOf('a'))
  loadWhenReady(kit, undefined, loader, fresh)
  expect(mockDone.mock.calls).toEqual([[hashOf('a'), 20]])
  // What is wanted a second time stays at hand, so that what a pad plays together is there together.
  has.delete(hashOf('a'))
  loadWhenReady(kit, undefined, loader, fresh)
  fetchFirst(loader, { padId: kit.pads[0].id, velocity: 90 }, () => undefined)
  expect(ids()).toEqual(['a', 'b', 'a'])
  mockReading[2].arrive()
  await settle()
  has.add(hashOf('a'))
  loadWhenReady(kit, undefined, loader, fresh)
  expect(mockDone).toHaveBeenCalledTimes(1)
  // The few that an edit wants stay at hand too.
  for (const name of others) has.add(hashOf(name))
  fresh.clear()
  loadWhenReady(kit, undefined, loader, fresh)
  mockReading.at(-1)!.arrive()
  await settle()
  has.add(hashOf('b'))
  loadWhenReady(kit, undefined, loader, fresh)
  expect(ids().at(-1)).toBe('b')
  expect(mockDone).toHaveBeenCalledTimes(1)
})

test('of what has come the pad that is struck is laid out first', async () => {
  const kit = aKit(['a1', 'a2'], ['b'], ['c'])
  const { loader, fresh, load } = aLoader(kit)
  loadWhenReady(kit, undefined, loader, fresh)
  mockReading[2].arrive() // b; the others are still read
  await settle()
  expect(fetchFirst(loader, { padId: kit.pads[1].id, velocity: 90 }, () => undefined)).toBe(false)
  expect(load).toHaveBeenLastCalledWith(kit, undefined, expect.objectContaining({ first: kit.pads[1].id }))
})

test('a pad of another kit, and one whose sound is here, wait for nothing', () => {
  const kit = aKit(['a'])
  const { loader, fresh, has } = aLoader(kit)
  expect(fetchFirst(loader, { padId: kit.pads[0].id, velocity: 90 }, () => undefined)).toBe(false) // nothing is on its way yet
  loadWhenReady(kit, undefined, loader, fresh)
  expect(fetchFirst(loader, { padId: 'elsewhere' as PadId, velocity: 90 }, () => undefined)).toBe(false)
  has.add(hashOf('a'))
  expect(fetchFirst(loader, { padId: kit.pads[0].id, velocity: 90 }, () => undefined)).toBe(false)
})
