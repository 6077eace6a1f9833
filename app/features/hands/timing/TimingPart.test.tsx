import { createSteadyClock } from '@heliaster/core/hands'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { noteStrike } from '../../../audio/playing/hands/timing'
import { TimingPart } from './TimingPart'

const RATE = 48000
const mockClock = createSteadyClock(RATE)
let mockListener: (sounded: { padId: string; frame: number }[]) => void = () => undefined
let mockKit: unknown
jest.mock('../../../audio/engine/sound', () => ({
  kitNow: () => mockKit,
  sound: { getState: () => ({ player: { clock: mockClock, sampleRateHz: 48000, context: { outputLatency: 0.024 } } }) },
  onSounded: (listener: typeof mockListener) => {
    mockListener = listener
    return () => undefined
  },
}))

const mockLoop = jest.fn()
jest.mock('../../../audio/recording/loop', () => ({ measureLoop: () => mockLoop() }))

/** A device that asks for 480 frames at a time, seen every 7.3 ms. */
beforeEach(() => {
  for (let ms = 0; ms < 2000; ms += 7.3) mockClock.see(ms, Math.floor((ms * 48) / 480 + 1) * 480)
})

test('it says how much strikes differ, what the device asks for and adds', () => {
  jest.spyOn(performance, 'now').mockReturnValue(2000)
  render(<TimingPart />)
  expect(screen.getAllByRole('status')[0]!.textContent).toMatch(/Strike a few times.*asks for (9\.[89]|10\.0) ms.*24\.0 ms/)
  for (const [atMs, late] of [[1500, 100], [1600, 340], [1700, 220]] as const) {
    noteStrike('pad-a' as never, atMs)
    act(() => mockListener([{ padId: 'pad-b', frame: 1 }, { padId: 'pad-a', frame: atMs * 48 + late }]))
  }
  expect(screen.getAllByRole('status')[0]!.textContent).toContain('The last 3 strikes differ by 5.0 ms')
  fireEvent.click(screen.getByRole('switch', { name: 'Steady' }))
  expect(handSettings.getState().isSteady).toBe(true)
  expect(screen.getAllByRole('status')[0]!.textContent).toContain('Strike a few times') // it is measured anew
}) // prettier-ignore

test('a limiter in the whole kit, which looks ahead, is a part of what is said; one that is off is not', () => {
  const limiter = { id: 'l', kind: 'limiter', values: {}, choices: {}, bypass: false }
  mockKit = { inserts: [limiter] }
  const { unmount } = render(<TimingPart />)
  expect(screen.getAllByRole('status')[0]!.textContent).toMatch(/A limiter in the mix, which looks ahead, adds 1\.5 ms\./)
  unmount()
  mockKit = { inserts: [{ ...limiter, bypass: true }] }
  render(<TimingPart />)
  expect(screen.getAllByRole('status')[0]!.textContent).not.toMatch(/limiter/)
})

test('the way through the air is measured, or it is said why not', async () => {
  render(<TimingPart />)
  const measure = () => act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Measure speaker and microphone' })))
  mockLoop.mockResolvedValueOnce({ seconds: 0.0884, spreadSeconds: 0.0001 })
  await measure()
  expect(screen.getAllByRole('status')[1]!.textContent).toMatch(/88\.4 ms pass; single chirps differ by 0\.1 ms/)
  mockLoop.mockResolvedValueOnce('There is no microphone.').mockRejectedValueOnce(new Error('torn'))
  await measure()
  expect(screen.getAllByRole('status')[1]!.textContent).toBe('There is no microphone.')
  await measure()
  expect(screen.getAllByRole('status')[1]!.textContent).toMatch(/torn.*Try again/)
})
