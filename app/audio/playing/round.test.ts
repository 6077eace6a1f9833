import { aKitOf, aPad } from '../../testing/a-kit'
import { roundState, stopRound, toggleRound } from './round'

const mockStrike = jest.fn()
const mockRelease = jest.fn()
jest.mock('../engine/sound', () => ({
  strikePad: (strike: unknown) => mockStrike(strike),
  releasePad: (pad: unknown) => mockRelease(pad),
}))

const kit = aKitOf(aPad(1), aPad(1), aPad(1))
const [first, second, third] = kit.pads.map(({ id }) => id)
const strikes = () => mockStrike.mock.calls.map(([{ padId, velocity }]) => [padId, velocity] as const)

beforeEach(() => {
  jest.useFakeTimers()
  jest.clearAllMocks()
})
afterEach(() => {
  stopRound()
  jest.useRealTimers()
})

test('soft, middle, loud, fast repeats, then between its neighbours; each is let go, and it goes on until it is stopped', () => {
  toggleRound(() => kit, () => second)
  expect(roundState.getState().running).toBe(true)
  jest.advanceTimersByTime(5000)
  const round = strikes().slice(0, 13)
  expect(round.slice(0, 3).map(([, velocity]) => velocity)).toEqual([30, 76, 122])
  expect(round.slice(0, 9).every(([pad]) => pad === second)).toBe(true)
  expect(round.slice(9).map(([pad]) => pad)).toEqual([first, second, third, second])
  expect(mockRelease.mock.calls.length).toBeGreaterThanOrEqual(12)
  const before = strikes().length
  jest.advanceTimersByTime(5000)
  expect(strikes().length).toBeGreaterThan(before)
  toggleRound(() => kit, () => second)
  const stopped = strikes().length
  jest.advanceTimersByTime(5000)
  expect([strikes().length, roundState.getState().running]).toEqual([stopped, false])
}) // prettier-ignore

test('it follows the pad that is worked on, round the ends of the kit, and waits where there is none', () => {
  let now: typeof kit | undefined = undefined
  toggleRound(() => now, () => third)
  jest.advanceTimersByTime(600)
  expect(strikes()).toEqual([])
  now = kit
  jest.advanceTimersByTime(5000)
  const pads = strikes().map(([pad]) => pad)
  expect(pads).toContain(first) // the neighbour of the last one is the first
  expect(pads.filter((pad) => pad === third).length).toBeGreaterThan(6)
}) // prettier-ignore
