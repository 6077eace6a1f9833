import { act, fireEvent, render, screen } from '@testing-library/react'

import { Notices, NoticesHere, notify } from './notices'
import { openSheets } from './open-sheets'
import { Sheet } from './Sheet'

let mockIsWide = true
jest.mock('./use-is-wide', () => ({ useIsWide: () => mockIsWide }))

beforeEach(() => jest.useFakeTimers())
afterEach(() => {
  act(() => jest.runAllTimers())
  jest.useRealTimers()
})

const say = (...words: Parameters<typeof notify>) => act(() => notify(...words))

test('what is said stands there, is said to those who cannot see it, and goes by itself', () => {
  render(<Notices />)
  say('3 deleted.')
  expect(screen.getByRole('status').textContent).toContain('3 deleted.')
  expect(screen.getByRole('status').getAttribute('aria-live')).toBe('polite')
  act(() => jest.runAllTimers())
  expect(screen.queryByText('3 deleted.')).toBeNull()
})

test('it stands nine seconds from when it is seen, however busy the device was before; what could not be shown for a minute is not', () => {
  say('Kept.')
  jest.advanceTimersByTime(20_000) // nothing could be drawn
  const { unmount } = render(<Notices />)
  act(() => jest.advanceTimersByTime(8_900))
  expect(screen.queryByText('Kept.')).not.toBeNull()
  act(() => jest.advanceTimersByTime(200))
  expect(screen.queryByText('Kept.')).toBeNull()
  unmount()
  say('Old.')
  jest.advanceTimersByTime(61_000)
  render(<Notices />)
  expect(screen.queryByText('Old.')).toBeNull()
})

test('what can be done about it is done once, and it is put away', () => {
  const undo = jest.fn()
  render(<Notices />)
  say('3 deleted.', { label: 'Undo', run: undo })
  fireEvent.click(screen.getByRole('button', { name: 'Undo' }))
  expect(undo).toHaveBeenCalledTimes(1)
  expect(screen.queryByText('3 deleted.')).toBeNull()
})

test('nothing is said twice at once, and no more than three things', () => {
  render(<Notices />)
  for (const words of ['one', 'two', 'two', 'three', 'four']) say(words)
  expect(screen.getAllByText(/one|two|three|four/).map((one) => one.textContent)).toEqual(['two', 'three', 'four'])
  fireEvent.click(screen.getAllByRole('button', { name: 'Put this away' })[1])
  expect(screen.queryByText('three')).toBeNull()
})

test('it is said once: nearest to the work, and beside a sheet while one is open', () => {
  const inPlace = () => screen.queryByText('Kept.')?.closest('[data-testid]')?.getAttribute('data-testid')
  const shown = (isOpen: boolean) => (
    <>
      <div data-testid="place">
        <NoticesHere />
      </div>
      <div data-testid="page">
        <Notices />
      </div>
      <Sheet title="Pads" isOpen={isOpen} onClose={() => undefined}>
        {null}
      </Sheet>
    </>
  )
  const { rerender } = render(shown(false))
  say('Kept.')
  expect([screen.getAllByText('Kept.').length, inPlace()]).toEqual([1, 'place'])
  rerender(shown(true))
  expect([screen.getAllByText('Kept.').length, inPlace()]).toEqual([1, undefined])
  rerender(shown(false))
  expect([screen.getAllByText('Kept.').length, inPlace()]).toEqual([1, 'place'])
})

test('above a sheet on a phone the newest stands alone, so that it does not reach into it; the one before comes back', () => {
  mockIsWide = false
  const shown = (isOpen: boolean) => (
    <>
      <Notices />
      <Sheet title="Ties" isOpen={isOpen} onClose={() => undefined}>
        {null}
      </Sheet>
    </>
  )
  const { rerender } = render(shown(true))
  say('Kept one.')
  say('Kept two.')
  const said = () => screen.queryAllByText(/^Kept/).map((one) => one.textContent)
  expect(said()).toEqual(['Kept two.'])
  fireEvent.click(screen.getByRole('button', { name: 'Put this away' }))
  expect(said()).toEqual(['Kept one.'])
  say('Kept three.')
  rerender(shown(false))
  expect(said()).toEqual(['Kept one.', 'Kept three.'])
  mockIsWide = true
})

test('a sheet on a phone leaves as much room above it as what is said there takes, and has it again when nothing is said', () => {
  mockIsWide = false
  const { unmount } = render(
    <>
      <Notices />
      <Sheet title="Ties" isOpen onClose={() => undefined}>
        {null}
      </Sheet>
    </>,
  )
  const above = screen.getByRole('status').parentElement as unknown as { __reactLayoutHandler(event: unknown): void }
  const takes = (height: number) => act(() => above.__reactLayoutHandler({ nativeEvent: { layout: { height } } }))
  say('There is no room for more recordings on this device: put away what is not needed.')
  takes(180)
  expect(openSheets.getState().leftPx).toBe(188)
  fireEvent.click(screen.getByRole('button', { name: 'Put this away' }))
  takes(0)
  expect(openSheets.getState().leftPx).toBe(0)
  takes(40)
  unmount()
  expect(openSheets.getState().leftPx).toBe(0)
  mockIsWide = true
})
