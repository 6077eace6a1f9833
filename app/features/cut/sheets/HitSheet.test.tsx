import { createSource } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import type { CutHit } from '../bench/use-source-cut'
import { HitSheet } from './HitSheet'

const mockKin = jest.fn()
const mockSounding = jest.fn()
const mockNavigate = jest.fn()
jest.mock('../../gather', () => ({ showKin: (kin: unknown) => mockKin(kin) }))
jest.mock('../../../kit-view', () => ({ useKitId: () => 'kit-1' }))
jest.mock('../../../audio/workers/workers', () => ({
  coreWork: () => ({ sounding: (...given: unknown[]) => mockSounding(...given) as unknown }),
}))
jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockNavigate(to) } }))

const source = createSource(makeId, audio, info, 'Walk')
const actions = { name: jest.fn(), nudge: jest.fn(), setEnd: jest.fn(), cutOut: jest.fn() }
const close = jest.fn()
const shown = (item: CutHit) => render(<HitSheet source={source} item={item} actions={actions as never} onClose={close} />)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const type = (name: string, value: string) => {
  const field = screen.getByRole('textbox', { name })
  fireEvent.change(field, { target: { value } })
  fireEvent.blur(field)
}

beforeEach(() => jest.clearAllMocks())

test('begin, end and length are typed in ms and taken in frames, never past the recording', () => {
  const [, item] = hitsOf(2)
  shown(item)
  type('Begins at, ms', '25')
  expect(actions.nudge).toHaveBeenLastCalledWith(item.marker, 1200 - 1000)
  type('Ends at, ms', '30')
  expect(actions.setEnd).toHaveBeenLastCalledWith(item.marker, 1440)
  type('Length, ms', '99999')
  expect(actions.setEnd).toHaveBeenLastCalledWith(item.marker, info.frames)
  press('1 ms earlier')
  press('1 ms later')
  expect(actions.nudge.mock.calls.slice(1).map(([, by]) => by as number)).toEqual([-48, 48])
})

test('a name counts when it is left, and an end set by hand can be found again', () => {
  const [item] = hitsOf(1)
  shown({ ...item, marker: { ...item.marker, endFrame: 700 } })
  type('Name', 'heel')
  expect(actions.name).toHaveBeenCalledWith(expect.objectContaining({ id: item.marker.id }), 'heel')
  expect(screen.getByRole('switch', { name: 'The end stays when the begin is moved' })).toBeTruthy()
  press('Find its end again')
  expect(actions.setEnd).toHaveBeenCalledWith(expect.objectContaining({ endFrame: 700 }))
})

test('what strikes inside it is told in ms, and becomes hits of its own', () => {
  shown(hitsOf(1, () => ({ secondFrames: [480, 720] }))[0])
  expect(screen.getByText(/^Something strikes 2 times more inside it, 10 ms, 15 ms after its begin\./)).toBeTruthy()
  press('Make them 2 hits of their own')
  expect(actions.cutOut).toHaveBeenCalledWith([480, 720])
  expect(close).toHaveBeenCalled()
})

test('what was measured is said, with its pitch where there is one, and what is wrong with what to do', () => {
  shown(hitsOf(1, () => ({ pitch: { hz: 220, confidence: 0.9 }, warnings: ['clipped' as const] }) as never)[0])
  expect(screen.getByText(/^220\.0 Hz, A\d \+0 cents, 90 % sure$/)).toBeTruthy()
  expect(screen.getByText('wood: it is short and dull')).toBeTruthy()
  expect(screen.getByText('-40.0 LUFS in its loudest 100 ms')).toBeTruthy()
  expect(document.body.textContent).toMatch(/clip/i)
})

test('sounds like this are looked for in the list of sounds; a hit that cannot be told looks for none', async () => {
  const [item] = hitsOf(1)
  shown(item)
  mockSounding.mockResolvedValueOnce(undefined)
  await act(async () => press('Sounds like this'))
  expect(mockKin).not.toHaveBeenCalled()
  mockSounding.mockResolvedValueOnce('its sound')
  await act(async () => press('Sounds like this'))
  expect(mockKin).toHaveBeenCalledWith({ name: 'the hit at 0.00 s', sounding: 'its sound' })
  expect(close).toHaveBeenCalled()
})

test('Escape closes it', () => {
  shown(hitsOf(1)[0])
  fireEvent.keyDown(window, { key: 'Escape' })
  expect(close).toHaveBeenCalledTimes(1)
})
