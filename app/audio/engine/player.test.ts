/** @jest-environment node */
import { controlNumbers, EventField, EventType, MOST_PAIRS } from '@heliaster/core/engine'
import { createBus } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'

import { aKitOf, aPad } from '../../testing/a-kit'
import { createPlayer } from './player'
import type { Player, Strike } from './player'

/** What a strike does once its sound is here; nothing while it waits for none. */
let mockArrives: (() => void) | undefined
let mockIsWaiting = false
jest.mock('./arriving', () => ({
  fetchFirst: (_loader: unknown, _strike: Strike, then: () => void) => {
    mockArrives = then
    return mockIsWaiting
  },
  loadWhenReady: (kit: Kit, choice: unknown, loader: { load(kit: Kit, choice: unknown): void }) => {
    loader.load(kit, choice)
  },
  whenQuiet: (then: () => void) => then(),
}))
jest.mock('../files/audio-files', () => ({ readyAudio: () => undefined }))
jest.mock('./engine-url', () => ({
  engineUrl: async () => '/engine.js',
  NoSound: class NoSound extends Error {},
}))

interface Told {
  readonly type: string
  readonly events?: Float64Array
  readonly ofSlot?: readonly number[]
}
const told: Told[] = []
let made: { name: string; options: { outputChannelCount: number[] } }
let state: string
const context = {
  sampleRate: 48_000,
  destination: {},
  get state() {
    return state
  },
  resume: jest.fn(async () => undefined),
  suspend: jest.fn(async () => undefined),
  audioWorklet: { addModule: jest.fn(async () => undefined) } as object | undefined,
}
const node = { connect: jest.fn(), port: { postMessage: (message: Told) => told.push(message), onmessage: undefined as unknown } }
const events = () => told.filter(({ type }) => type === 'events').map(({ events: numbers }) => numbers!)
const last = (field: Exclude<keyof typeof EventField, 'length'>) => events().at(-1)![EventField[field]]
const kit = aKitOf({ ...aPad(1), own: { name: 'Oar' } }, { ...aPad(1), own: { name: 'Cleat' } })
const [oar, cleat] = kit.pads.map(({ id }) => id) as [PadId, PadId]

function hosts() {
  Object.assign(globalThis, {
    AudioContext: function AudioContext() {
      return context
    },
    AudioWorkletNode: function AudioWorkletNode(_context: unknown, name: string, options: never) {
      made = { name, options }
      return node
    },
    crossOriginIsolated: false,
  })
}
async function played(): Promise<Player> {
  const player = await createPlayer()
  player.load(kit)
  return player
}

beforeEach(() => {
  jest.clearAllMocks()
  told.length = 0
  state = 'running'
  mockIsWaiting = false
  context.audioWorklet = { addModule: jest.fn(async () => undefined) }
  hosts()
})
afterEach(() => ['AudioContext', 'AudioWorkletNode', 'crossOriginIsolated'].forEach((name) => Reflect.deleteProperty(globalThis, name)))

test('a browser without a worklet, and a page that may have none, say what helps', async () => {
  Reflect.deleteProperty(globalThis, 'AudioWorkletNode')
  await expect(createPlayer()).rejects.toThrow(/^This browser has no AudioWorklet.* Everything else works/)
  hosts()
  Reflect.deleteProperty(globalThis, 'AudioContext')
  await expect(createPlayer()).rejects.toThrow(/^This browser has no AudioWorklet/)
  hosts()
  context.audioWorklet = undefined
  await expect(createPlayer()).rejects.toThrow(/only on https or localhost/)
})

test('by which pair a bus leaves is told once its kit is there, and not before', async () => {
  const player = await createPlayer()
  const room = createBus('bus-room' as never, 'Room')
  const pairs = () => told.filter(({ type }) => type === 'pairs').map(({ ofSlot }) => ofSlot!.indexOf(2))
  player.setPairs(new Map([[room.id, 2]]))
  expect(pairs()).toEqual([])
  player.load({ ...kit, buses: [createBus('bus-wet' as never, 'Wet'), room] })
  expect(pairs()).toEqual([2])
})

test('the engine has three outputs: what is heard, the mix before its limiter, and the pairs that buses leave by', async () => {
  const player = await createPlayer()
  expect(made).toMatchObject({ name: 'heliaster-engine', options: { numberOfInputs: 0, numberOfOutputs: 3, outputChannelCount: [2, 2, 2 * MOST_PAIRS] } })
  expect([node.connect.mock.calls, player.sampleRateHz]).toEqual([[[context.destination]], 48_000])
}) // prettier-ignore

test('a strike is told with its pad, velocity, note and key, at once or at its frame', async () => {
  const player = await played()
  expect(player.strike({ padId: cleat, velocity: 90, key: 7, note: 40 })).toBe(false)
  expect(['type', 'velocity', 'key', 'note', 'frame'].map((field) => last(field as 'type'))).toEqual([EventType.strike, 90, 7, 40, -1])
  const slot = last('padSlot')
  player.strike({ padId: oar, velocity: 1, frame: 4800 })
  expect([last('frame'), last('note'), last('padSlot') === slot]).toEqual([4800, -1, false])
  player.release(cleat, 7, 9600)
  expect([last('type'), last('padSlot'), last('key'), last('frame')]).toEqual([EventType.release, slot, 7, 9600])
})

test('a strike whose sound is on its way is told once it is here; one at a frame waits for nothing', async () => {
  const player = await played()
  mockIsWaiting = true
  const before = events().length
  expect(player.strike({ padId: oar, velocity: 90 })).toBe(true)
  expect(events()).toHaveLength(before)
  mockArrives!()
  expect([events().length - before, last('velocity')]).toEqual([1, 90])
  expect(player.strike({ padId: oar, velocity: 80, frame: 480 })).toBe(false)
  expect(last('frame')).toBe(480)
})

test('a hand’s strike sounds as long after it as any other, where the clock can tell when that is', async () => {
  const player = await played()
  player.strike({ padId: oar, velocity: 90, steadyAtMs: performance.now() })
  expect(last('frame')).toBe(-1) // the clock has seen nothing yet
  player.strike({ padId: oar, velocity: 90, steadyAtMs: performance.now() + 1e6 })
  expect(last('frame')).toBe(-1)
})

test('grooves, clocks, controls and pressures are told as what they are', async () => {
  const player = await played()
  const does = (run: () => void, ...fields: Exclude<keyof typeof EventField, 'length'>[]) => {
    run()
    return fields.map((field) => last(field))
  }
  expect(does(() => player.beginGroove(), 'type', 'velocity', 'frame')).toEqual([EventType.groove, 0, -1])
  expect(does(() => player.beginGroove(2.5, 960), 'velocity', 'frame')).toEqual([2.5, 960])
  expect(does(() => player.leadGroove(3, 24_000, 480), 'type', 'velocity', 'key', 'frame')).toEqual([EventType.leadGroove, 3, 24_000, 480])
  expect(does(() => player.stopGroove(), 'type')).toEqual([EventType.stopGroove])
  expect(does(() => player.stopAll(), 'type')).toEqual([EventType.stopAll])
  expect(does(() => player.moveControl(74, 100), 'type', 'note', 'velocity')).toEqual([EventType.controller, 74, 100])
  const [first, second] = [oar, cleat].map((padId) => does(() => player.press(padId, 0.5), 'note', 'velocity'))
  expect([first![1], second![0]! - first![0]!, first![0]! >= controlNumbers.keyPressure]).toEqual([0.5, 1, true])
})

test('it is silent until something sounds, and what it says of itself is what the engine told', async () => {
  const player = await played()
  expect([player.isSilent(), player.peak(), player.grooveBeat(), player.losses()]).toEqual([true, 0, -1, { events: 0, strikes: 0, lateBlocks: 0 }])
  const { StatusField } = jest.requireActual<typeof import('@heliaster/core/engine')>('@heliaster/core/engine') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const tell = (given: Partial<Record<keyof typeof StatusField, number>>) => {
    const status = new Float64Array(StatusField.length)
    status[StatusField.grooveBeat] = -1
    for (const [field, value] of Object.entries(given)) status[StatusField[field as keyof typeof StatusField]] = value
    ;(node.port.onmessage as (message: object) => void)({ data: { type: 'state', status, done: [], uses: [], log: [], acts: [], meters: [] } })
  }
  tell({ peak: 1e-5, frame: 4800, hostFrame: 100, lostStrikes: 2, lateBlocks: 3, songBeat: 9, grooveSection: 1 })
  expect([player.isSilent(), player.frameNow(), player.hostFrame(), player.songBeat(), player.grooveSection()]).toEqual([false, 4800, 100, 9, 1])
  expect(player.losses()).toEqual({ events: 0, strikes: 2, lateBlocks: 3 })
  tell({ peak: 1e-7 })
  expect(player.isSilent()).toBe(true)
  tell({ grooveBeat: 0.5 })
  expect([player.isSilent(), player.grooveBeat()]).toEqual([false, 0.5])
}) // prettier-ignore

test('a context that runs, or sleeps, is not asked to run; one that waits for the first touch is', async () => {
  const player = await createPlayer()
  await player.resume()
  expect(context.resume).not.toHaveBeenCalled()
  state = 'suspended'
  await player.resume()
  expect(context.resume).toHaveBeenCalledTimes(1)
})
