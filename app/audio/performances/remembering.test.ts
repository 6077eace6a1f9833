import { createKit, createPad } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import type { Act, Stood } from '@heliaster/core/performance'

import { makeId } from '../../documents/make-id'
import type { Player } from '../engine/player'
import { lookNow, lookToEnd, memoryOf, passages, startRemembering } from './remembering'

let mockKit: Kit | undefined
let mockActs: Act[] = []
let mockFrame = 0
let mockSilent = true
const mockStood = (): Stood => ({ frame: mockFrame, isSteady: true, pads: [], controls: [] })
let mockTell: (sounded: unknown[]) => void = () => undefined
jest.mock('../engine/sound', () => ({
  sound: {
    getState: () => ({
      player: {
        sampleRateHz: 48000,
        takeActs: () => mockActs.splice(0),
        frameNow: () => mockFrame,
        isSilent: () => mockSilent,
        stands: () => Promise.resolve(mockStood()),
      },
    }),
  },
  kitNow: () => mockKit,
  onSounded: (listener: (sounded: unknown[]) => void) => (mockTell = listener),
}))

const pad = createPad(makeId, { name: 'Keel' }, 36)
const strike = (frame: number): Act => ({ type: 'strike', frame, padId: pad.id, velocity: 90, key: 1 })
const aKit = (): Kit => ({ ...createKit(makeId, 'Low Tide'), pads: [pad] })
/** The page looks, and what it asked for comes. */
const look = () => jest.advanceTimersByTimeAsync(500)

beforeAll(() => {
  jest.useFakeTimers()
  startRemembering()
  startRemembering() // once is enough
})
beforeEach(() => {
  mockKit = aKit()
  mockActs = [{ type: 'kit', frame: mockFrame, kit: mockKit }]
})

test('strikes become passages of the kit that is open, and a groove’s strikes stand among them', async () => {
  await look()
  const from = (mockFrame += 48_000)
  mockActs = [strike(from), strike(from + 9600)]
  mockTell([
    { cameBy: 'bead', struckId: pad.id, frame: from + 4800, velocity: 70 },
    { cameBy: 'along', struckId: pad.id, frame: from + 4801, velocity: 70 },
    { cameBy: 'hand', struckId: pad.id, frame: from, velocity: 90 },
  ])
  await look()
  const [passage] = passages.getState()[mockKit!.id]
  expect(passage).toMatchObject({ fromFrame: from, toFrame: from + 9601, strikes: 3, padIds: [pad.id] })
  const performance = memoryOf(mockKit!.id)!.performanceOf(passage, {
    name: 'A',
    kitId: mockKit!.id,
    hashOf: () => 'a'.repeat(64) as never,
    makeId,
  })!
  expect(performance.events.map((event) => event.type === 'strike' && [event.frame + performance.originFrame - from, event.by])).toEqual([[0, undefined], [4800, 'groove'], [9600, undefined]]) // prettier-ignore
})

test('what is older than ten minutes goes; another kit has passages of its own', async () => {
  await look()
  const first = mockKit!
  mockActs = [strike((mockFrame += 48_000))]
  await look()
  expect(passages.getState()[first.id]).toHaveLength(1)
  mockKit = aKit()
  mockActs = [{ type: 'kit', frame: mockFrame, kit: mockKit }]
  await look()
  expect(passages.getState()[mockKit.id]).toBeUndefined()
  await jest.advanceTimersByTimeAsync(11 * 60_000)
  lookNow(first.id)
  expect(passages.getState()[first.id]).toEqual([])
})

test('while much is played it is noted every five seconds how the engine stands, and once it is silent', async () => {
  await look()
  const memory = memoryOf(mockKit!.id)!
  mockSilent = false
  const stood: number[] = []
  for (let second = 0; second < 12; second++) {
    mockActs = [strike((mockFrame += 48_000))]
    await look()
    stood.push(memory.lastStood())
  }
  expect(new Set(stood).size).toBeLessThanOrEqual(4)
  expect(mockFrame - stood[stood.length - 1]!).toBeLessThanOrEqual(6 * 48_000)
  mockSilent = true
  await look()
  expect(memory.lastStood()).toBe(mockFrame)
})

test('the last strike before an end is taken up though the engine is behind; one that sleeps or stands still is not waited for', async () => {
  await look()
  const pressedAt = mockFrame
  const player = {
    frameNow: () => mockFrame,
    clock: { burstFrames: () => 480 },
    sleep: { isAsleep: () => false },
    stands: () => {
      mockFrame += 128
      if (mockFrame - pressedAt === 896) mockActs = [strike(mockFrame)] // struck before, it sounds now
      return Promise.resolve(mockStood())
    },
  } as unknown as Player
  const end = await lookToEnd(player)
  expect(mockFrame).toBeGreaterThanOrEqual(end)
  const [passage] = passages.getState()[mockKit!.id]
  expect(passage).toMatchObject({ fromFrame: pressedAt + 896, strikes: 1 })
  expect(end).toBeGreaterThan(passage.fromFrame)
  const stands = jest.fn()
  await lookToEnd({ ...player, stands, sleep: { isAsleep: () => true } } as unknown as Player)
  expect(stands).not.toHaveBeenCalled()
  const standsStill = { ...player, stands: () => jest.advanceTimersByTimeAsync(300) } as unknown as Player
  expect(await lookToEnd(standsStill)).toBeGreaterThan(mockFrame)
  const silent = lookToEnd({ ...player, stands: () => new Promise(() => undefined) } as unknown as Player) // it never answers
  await jest.advanceTimersByTimeAsync(3000)
  expect(await silent).toBeGreaterThan(mockFrame)
})
