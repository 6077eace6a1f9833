import { act, fireEvent, render, screen, within } from '@testing-library/react'

import { clearLive, live } from '../../audio/recording/live'
import * as aRecorder from '../../testing/a-recorder'
import { LiveWave, timeText } from './LiveWave'
import { RecorderSheet } from './RecorderSheet'
import { RecordPanel } from './RecordPanel'

const { recorder, resetRecorder } = aRecorder
jest.mock('../../audio/recording/recorder', () => jest.requireActual<typeof aRecorder>('../../testing/a-recorder'))
jest.mock('../../audio/recording/use-recorder', () => {
  const { useStore } = jest.requireActual<{ useStore: (store: unknown) => unknown }>('zustand')
  return { useRecorder: () => useStore(jest.requireActual<typeof aRecorder>('../../testing/a-recorder').recorder) }
})
const mockDevices = jest.fn()
jest.mock('../../audio/recording/inputs', () => ({ listMicrophones: () => Promise.resolve(mockDevices()) }))

// Pictures are drawn, and looked at by nobody.
HTMLCanvasElement.prototype.getContext = (() => new Proxy({}, { get: () => () => undefined, set: () => true })) as never
globalThis.ResizeObserver = class { observe = () => undefined; unobserve = () => undefined; disconnect = () => undefined } // prettier-ignore
const closed = jest.fn()
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (group: string, name: string) =>
  fireEvent.click(within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name }))
const chosen = (group: string) =>
  within(screen.getByRole('radiogroup', { name: group }))
    .getAllByRole('radio')
    .filter((one) => one.getAttribute('aria-checked') === 'true')
    .map((one) => one.textContent)
const settings = () => recorder.getState().settings
const settle = () => act(async () => undefined)

beforeEach(() => {
  jest.clearAllMocks()
  resetRecorder()
  clearLive()
  mockDevices.mockReturnValue([{ id: 'mic-2', label: 'The mast' }])
})

const sheet = async () => {
  render(<RecorderSheet onClose={closed} />)
  await settle()
}

test('a microphone is chosen by its name; one that is gone counts as the browser’s own choice', async () => {
  aRecorder.changeRecorder({ deviceId: 'mic-that-was' })
  await sheet()
  expect(chosen('Microphone')).toEqual(['The browser’s own choice'])
  choose('Microphone', 'The mast')
  expect([settings().deviceId, chosen('Microphone')]).toEqual(['mic-2', ['The mast']])
  choose('Microphone', 'The browser’s own choice')
  expect(settings().deviceId).toBeUndefined()
})

test('the input is opened from the sheet, and then named; channels are chosen', async () => {
  await sheet()
  expect(screen.getByText('The input is not open.')).toBeTruthy()
  press('Open the input and watch the level')
  await settle()
  expect(aRecorder.arm).toHaveBeenCalledTimes(1)
  expect(screen.getByText('The deck')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Open the input and watch the level' })).toBeNull()
  choose('Channels', 'Left')
  expect(settings().channels).toBe('left')
})

test('threshold and silence are there only where a take waits for sound', async () => {
  await sheet()
  expect(screen.queryByRole('slider')).toBeNull()
  fireEvent.click(screen.getByRole('switch', { name: 'Wait for sound' }))
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Threshold' }), { key: 'ArrowRight' })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Stop after silence (0 for never)' }), { key: 'End' })
  expect(settings()).toMatchObject({ waitsForSound: true, thresholdDb: -35, silenceSeconds: 30 })
  fireEvent.click(screen.getByRole('switch', { name: 'Listen before recording' }))
  expect(settings().listens).toBe(false)
})

test('the pads have no microphone, no channels and nothing to wait for; Escape closes the sheet', async () => {
  aRecorder.changeRecorder({ input: 'pads', waitsForSound: true })
  await sheet()
  expect([screen.queryAllByRole('radiogroup'), screen.queryAllByRole('switch'), screen.queryAllByRole('slider')].flat()).toEqual([])
  fireEvent.keyDown(window, { key: 'Escape' })
  expect(closed).toHaveBeenCalledTimes(1)
})

const onTaken = jest.fn()
const onSlim = jest.fn()
const panel = (isSlim = false) => render(<RecordPanel onTaken={onTaken} isSlim={isSlim} onSlim={onSlim} />)

test('one button records and stops; while it runs nothing else of the panel can be pressed', () => {
  panel()
  press('Record')
  expect(aRecorder.startTake).toHaveBeenCalledWith(onTaken)
  for (const name of ['Settings of recording', 'Put the recorder away'])
    expect(screen.getByRole('button', { name }).getAttribute('aria-disabled')).toBe('true')
  expect(screen.queryByRole('radiogroup')).toBeNull()
  press('Stop and cut')
  expect(aRecorder.stopTake).toHaveBeenCalledTimes(1)
})

test('put away it is a line with the button, and comes out again by itself while it records', () => {
  panel(true)
  press('Show the recorder')
  expect(onSlim).toHaveBeenCalledWith(false)
  expect(screen.queryByLabelText('What comes in')).toBeNull()
  act(() => recorder.setState({ state: 'waiting' }))
  expect(screen.getByLabelText('What comes in')).toBeTruthy()
  expect(screen.getByText('Recording begins with the first sound, and keeps the second before it.')).toBeTruthy()
})

test('what comes in is chosen, and each input says what it records', () => {
  panel()
  expect(screen.getByText('The level is shown once the microphone is open.')).toBeTruthy()
  choose('Input', 'The pads')
  act(() => recorder.setState({ state: 'armed' }))
  expect(screen.getByText('What the pads play is recorded, sample for sample, before the limiter.')).toBeTruthy()
})

test('why there is no input, and that nothing can be written while it records, are said at once', () => {
  panel()
  expect(screen.queryByRole('alert')).toBeNull()
  act(() => recorder.setState({ problem: 'The deck was unplugged.', onDisk: false }))
  expect(screen.getAllByRole('alert').map((one) => one.textContent)).toEqual([
    expect.stringMatching(/^This browser cannot write to the disk while it records\./),
    'The deck was unplugged.',
  ])
})

test('settings open over the panel', async () => {
  panel()
  press('Settings of recording')
  await settle()
  expect(screen.getByRole('dialog', { name: 'Recording' })).toBeTruthy()
})

describe('what comes in', () => {
  const frames: ((now: number) => void)[] = []
  beforeEach(() => {
    jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((paint) => frames.push(paint))
  })
  afterEach(() => jest.restoreAllMocks())
  let now = 0
  const paint = () => act(() => frames.splice(0).forEach((one) => one((now += 200))))
  const heard = (level: number, more: object = {}) => void Object.assign(live, { highest: level, now: [level], peaks: [level], ...more })

  test('the level asks for more or less of it, and its highest is forgotten by a press', () => {
    render(<LiveWave isOpen isRecording={false} />)
    paint()
    expect(screen.getByText('Strike once as hard as you will, to see the level.')).toBeTruthy()
    heard(0.5)
    paint()
    expect(screen.getByText('A good level, with room for a harder strike.')).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Forget the highest level' }).textContent).toBe('-6.0 dB')
    press('Forget the highest level')
    paint()
    expect(live.highest).toBe(0)
    expect(screen.getByRole('button', { name: 'Forget the highest level' }).textContent).toBe('no level yet')
  })

  test('clipping is counted until its mark is pressed, and counts on from there', () => {
    render(<LiveWave isOpen isRecording={false} />)
    heard(1, { clips: 3 })
    paint()
    expect(screen.getByText('Too loud: it clipped. Turn the input down or move away.')).toBeTruthy()
    press('Clipped 3 times; clear the mark')
    paint()
    expect(screen.queryByText(/^Clipped/)).toBeNull()
    heard(1, { clips: 4 })
    paint()
    expect(screen.getByRole('button', { name: 'Clipped 1 time; clear the mark' })).toBeTruthy()
  })

  test('while it records, time and hits stand in place of advice', () => {
    render(<LiveWave isOpen isRecording words="not while it records" />)
    heard(0.4, { seconds: 65.25, hits: [60, 61] })
    paint()
    expect(screen.getByText('1:05.3')).toBeTruthy()
    expect(screen.getByText('2 hits')).toBeTruthy()
    expect(screen.queryByText('not while it records')).toBeNull()
    expect([timeText(0), timeText(59.94), timeText(600)]).toEqual(['0.0 s', '59.9 s', '10:00.0'])
  })
})
