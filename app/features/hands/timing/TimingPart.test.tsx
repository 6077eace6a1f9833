import { createSteadyClock } from '@heliaster/core/hands'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { noteStrike } from '../../../audio/playing/hands/timing'
import { TimingPart } from './TimingPart'

const RATE = 48000
const mockClock = createSteadyClock(RATE)
let mockListener: (sounded: { padId: string; frame: number }[]) => void = () => undefined
jest.mock('../../../audio/engine/sound', () => ({
  sound: { getState: () => ({ player: { clock: mockClock, sampleRateHz: 48000, context: { outputLatency: 0.024 } } }) },
  onSounded: (listener: typeof mockListener) => {
    mockListener = listener
    return () => undefined
  },
}))

/** A device that asks for 480 frames at a time, seen every 7.3 ms. */
beforeEach(() => {
  for (let ms = 0; ms < 2000; ms += 7.3) mockClock.see(ms, Math.floor((ms * 48) / 480 + 1) * 480)
})

test('it says how much strikes differ, what the device asks for and adds', () => {
  jest.spyOn(performance, 'now').mockReturnValue(2000)
  render(<TimingPart />)
  expect(screen.getByRole('status').textContent).toMatch(/Strike a few times.*asks for (9\.[89]|10\.0) ms.*24\.0 ms/)
  for (const [atMs, late] of [[1500, 100], [1600, 340], [1700, 220]] as const) {
    noteStrike('pad-a' as never, atMs)
    act(() => mockListener([{ padId: 'pad-b', frame: 1 }, { padId: 'pad-a', frame: atMs * 48 + late }]))
  }
  expect(screen.getByRole('status').textContent).toContain('The last 3 strikes differ by 5.0 ms')
  fireEvent.click(screen.getByRole('switch', { name: 'Steady' }))
  expect(handSettings.getState().isSteady).toBe(true)
  expect(screen.getByRole('status').textContent).toContain('Strike a few times') // it is measured anew
}) // prettier-ignore
