import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { lengthText, SourceRow } from './SourceRow'
import { DeleteSheet, SelectionBar } from './SelectionBar'

const mockSet = jest.fn()
const mockFavour = jest.fn()
const mockRemove = jest.fn()
let mockWarning = ''
jest.mock('./sound-actions', () => ({
  setSounds: (...given: unknown[]) => mockSet(...given) as unknown,
  favourSounds: (...given: unknown[]) => mockFavour(...given) as unknown,
  removeSounds: (sounds: unknown) => {
    mockRemove(sounds)
    return Promise.resolve()
  },
  deletionWarning: () => mockWarning,
}))
jest.mock('../../place', () => ({ PlaceSheet: ({ files }: { files: unknown[] }) => `places ${files.length}` }))
jest.mock('../sheets/RenameSheet', () => ({ RenameSheet: ({ sounds }: { sounds: unknown[] }) => `renames ${sounds.length}` }))
jest.mock('../sheets/TagSheet', () => ({ TagSheet: ({ sounds }: { sounds: unknown[] }) => `tags ${sounds.length}` }))
jest.mock('../../../kit-view/MiniWave', () => ({ MiniWave: () => null }))

const sound = (name: string, given: Partial<Source> = {}, channels = 1): Source =>
  createSource(makeId, audio, { ...info, channels }, name, given)
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const behindMore = (name: string) => {
  press('More')
  press(name)
}
const actions = { hear: jest.fn(), cut: jest.fn(), open: jest.fn(), select: jest.fn(), judge: jest.fn() }

beforeEach(() => {
  jest.clearAllMocks()
  mockWarning = ''
})

test('a row hears, cuts, judges and opens its own sound, and says what is known of it', () => {
  const source = sound('plank 1', { family: 'closedHat', verdict: 'keep', measured: { loudnessDb: -21.4, peakDb: -3 } as never }, 2)
  render(<SourceRow source={source} chosen={false} selected={undefined} actions={actions} />)
  for (const name of ['Hear plank 1', 'Cut plank 1', 'plank 1 is kept; change', 'More for plank 1']) press(name)
  for (const did of [actions.hear, actions.cut, actions.judge, actions.open]) expect(did.mock.calls).toEqual([[source]])
  expect(screen.getByText('1.00 s, -21 LUFS, closed hat, stereo')).toBeTruthy()
})

test('while several are selected a row is ticked, by its box or anywhere', () => {
  const source = sound('plank 2')
  render(<SourceRow source={source} chosen={false} selected={false} actions={actions} />)
  const box = screen.getByRole('checkbox', { name: 'plank 2' })
  expect(box.getAttribute('aria-checked')).toBe('false')
  fireEvent.click(box)
  press('Select plank 2')
  fireEvent.click(screen.getByRole('button', { name: 'Select plank 2' }), { shiftKey: true })
  expect(actions.select.mock.calls.map(([, isRange]) => isRange as boolean)).toEqual([false, false, true])
  expect(screen.queryByRole('button', { name: 'Hear plank 2' })).toBeNull()
})

test('lengths are seconds up to a minute, then minutes and seconds; silence is called that', () => {
  expect(lengthText(sound('a'))).toBe('1.00 s')
  expect(lengthText({ ...sound('a'), info: { ...info, frames: 48000 * 61 } })).toBe('1:01')
  render(<SourceRow source={sound('still', { measured: { loudnessDb: -200, peakDb: -200 } as never })} chosen selected={undefined} actions={actions} />)
  expect(screen.getByText(/silent/)).toBeTruthy()
}) // prettier-ignore

const list = [sound('a'), sound('b', { favourite: true }), sound('c', {}, 2)]
let selection: ReadonlySet<string> | undefined

function Bar() {
  const [chosen, setChosen] = useState<ReadonlySet<Source['id']> | undefined>(new Set())
  selection = chosen
  return <SelectionBar shown={list} selection={chosen ?? new Set()} onSelection={setChosen} />
}

test('nothing is done to none; all that is shown is selected, and let go, in one press', () => {
  render(<Bar />)
  press('More')
  for (const name of ['Put on pads', 'Rename', 'Delete', 'Channels'])
    expect(screen.getByRole('button', { name }).getAttribute('aria-disabled')).toBe('true')
  press('All 3 shown')
  expect(screen.getByRole('status').textContent).toBe('3 of 3 selected')
  press('None')
  expect(selection?.size).toBe(0)
  press('Stop selecting')
  expect(selection).toBeUndefined()
})

test('what is done is done to the selected, each sheet with all of them', () => {
  render(<Bar />)
  press('All 3 shown')
  behindMore('Keep')
  expect(mockSet).toHaveBeenLastCalledWith(list, { verdict: 'keep' })
  behindMore('Pass')
  expect(mockSet).toHaveBeenLastCalledWith(list, { verdict: 'pass' })
  behindMore('Make favourites')
  expect(mockFavour).toHaveBeenLastCalledWith(list, true)
  for (const [name, words] of [['Put on pads', 'places 3'], ['Rename', 'renames 3'], ['Tag', 'tags 3']] as const) {
    press(name)
    expect(screen.getByText(new RegExp(words))).toBeTruthy()
  }
  behindMore('Channels')
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Clips of 1 stereo sound take' })).getByRole('radio', { name: 'Left' }))
  expect(mockSet).toHaveBeenLastCalledWith([list[2]], { channel: 'left' })
}) // prettier-ignore

test('a deletion says what it touches first, and is done only when it is meant', async () => {
  mockWarning = 'This sound is used by “Low Tide”.'
  const [done, close] = [jest.fn(), jest.fn()]
  const { rerender } = render(<DeleteSheet sounds={[list[0]]} onClose={close} onDone={done} />)
  expect(screen.getByText('This sound is used by “Low Tide”.')).toBeTruthy()
  press('Keep')
  expect([close.mock.calls.length, mockRemove.mock.calls.length]).toEqual([1, 0])
  mockWarning = ''
  rerender(<DeleteSheet sounds={list} onClose={close} onDone={done} />)
  expect(screen.getByText('No kit uses this.')).toBeTruthy()
  await act(async () => press('Delete 3 sounds'))
  expect(mockRemove).toHaveBeenCalledWith(list)
  expect(done).toHaveBeenCalledTimes(1)
})
