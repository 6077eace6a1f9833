import { act, render, screen } from '@testing-library/react'

import { AppFrame } from './AppFrame'

const mockKeepSteps = jest.fn()
jest.mock('../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    device: { start: jest.fn(() => Promise.resolve()), wake: jest.fn(), stop: jest.fn() },
    saveState: createStore(() => ({ unkept: 0, lasting: undefined })),
  }
})
jest.mock('../documents/step-keeping', () => ({ keepStepsOnLeave: () => mockKeepSteps() as unknown }))
jest.mock('../ui/layout/Hints', () => ({ Hints: () => null }))
const { device, saveState } = jest.requireMock<{
  device: Record<'start' | 'wake' | 'stop', jest.Mock>
  saveState: { setState(state: object): void; getState(): { lasting?: boolean } }
}>('../documents')

const persist = jest.fn(() => Promise.resolve(true))
beforeEach(() => {
  jest.clearAllMocks()
  Object.assign(globalThis, { requestIdleCallback: (run: () => void) => run() })
  Object.defineProperty(navigator, 'storage', { configurable: true, value: { persist } })
})
afterEach(() => Reflect.deleteProperty(globalThis, 'requestIdleCallback'))

const hide = (state: string) => {
  Object.defineProperty(document, 'visibilityState', { configurable: true, get: () => state })
  document.dispatchEvent(new Event('visibilitychange'))
}
const page = (type: string, persisted: boolean) => window.dispatchEvent(Object.assign(new Event(type), { persisted }))

test('documents are started once, however often the frame is drawn, and it is asked to keep what was recorded', async () => {
  const { unmount } = render(
    <AppFrame>
      <span>what is in it</span>
    </AppFrame>,
  )
  unmount()
  render(
    <AppFrame>
      <span>what is in it</span>
    </AppFrame>,
  )
  await act(async () => undefined)
  expect(screen.getByText(/what is in it/)).toBeTruthy()
  expect([device.start, mockKeepSteps, persist].map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1])
  expect(saveState.getState().lasting).toBe(true)
  expect(document.documentElement.lang).toBe('en')
  expect(document.documentElement.style.colorScheme).toMatch(/^(light|dark)$/)
})

test('sending wakes with the line and with the page, and stops where the page is gone for good', async () => {
  render(<AppFrame>{null}</AppFrame>)
  await act(async () => undefined)
  const woken = () => device.wake.mock.calls.length
  window.dispatchEvent(new Event('online'))
  const after = woken()
  expect(after).toBeGreaterThan(0)
  hide('hidden')
  expect(woken()).toBe(after)
  hide('visible')
  expect(woken()).toBeGreaterThan(after)
  page('pagehide', true)
  expect(device.stop).not.toHaveBeenCalled()
  page('pagehide', false)
  expect(device.stop).toHaveBeenCalled()
})

test('leaving asks first only while something is not kept', async () => {
  render(<AppFrame>{null}</AppFrame>)
  await act(async () => undefined)
  const leave = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }))
  saveState.setState({ unkept: 0 })
  expect(leave()).toBe(false)
  saveState.setState({ unkept: 2 })
  expect(leave()).toBe(true)
  saveState.setState({ unkept: 0 })
})
