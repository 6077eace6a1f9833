import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, within } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { SoundSheet } from './SoundSheet'

const mockDone = jest.fn((_act: string, ..._given: unknown[]) => undefined as unknown)
jest.mock('../list/kin', () => ({
  showKin: (query: unknown) => mockDone('kin', query),
  soundingOfSource: ({ measured }: Source) => measured && { brightHz: 900 },
}))
jest.mock('../list/out-and-back', () => ({
  takeOut: (source: Source) => mockDone('out', source.name),
  takeBack: (source: Source) => mockDone('back', source.name),
}))
jest.mock('../list/SelectionBar', () => ({ DeleteSheet: ({ onDone }: { onDone: () => void }) => <button onClick={onDone}>Gone</button> }))
jest.mock('./TagSheet', () => ({ TagSheet: ({ onClose }: { onClose: () => void }) => <button onClick={onClose}>Tagged</button> }))
jest.mock('../list/sound-actions', () => ({
  hearSound: () => mockDone('hear'),
  favourSounds: (_list: unknown, favourite: boolean) => mockDone('favour', favourite),
  setSounds: (_list: unknown, fields: object) => mockDone('set', fields),
  usedWords: () => 'No kit uses it yet.',
}))
jest.mock('../list/SourceRow', () => ({ lengthText: () => '1.00 s' }))
jest.mock('../../place', () => ({ PutOnPad: () => null, LayParts: () => null }))
jest.mock('../../../kit-view', () => ({ useKit: () => undefined }))
jest.mock('../../../kit-view/MiniWave', () => ({ MiniWave: () => null }))

const closed = jest.fn()
const cut = jest.fn()
const measured = { peakDb: -3, loudnessDb: -18 }
const show = (given: Partial<Source> = {}, channels = 1) =>
  render(<SoundSheet source={createSource(makeId, audio, { ...info, channels }, 'Keel knock', given)} onClose={closed} onCut={cut} />)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const acts = () => mockDone.mock.calls

beforeEach(() => jest.clearAllMocks())

test('what is known of a sound is said in one line, with what its file says', () => {
  show({ measured: measured as never, origin: 'recorded', addedAt: Date.UTC(2026, 3, 2, 12), told: { tempoBpm: 96, beats: 8, rootNote: 60 }, strikes: [{}, {}] as never }, 2) // prettier-ignore
  expect(
    screen.getByText('1.00 s, 48.0 kHz, stereo, peak -3.0 dB, -18.0 LUFS, recorded here 2 Apr 2026, 2 strikes written down with it, its file says 96 BPM, 8 beats, root note C4'),
  ).toBeTruthy()
}) // prettier-ignore

test('it is heard, favoured, and called otherwise; an empty name leaves it as it was', () => {
  show()
  press('Hear Keel knock')
  press('Make it a favourite')
  const field = screen.getByRole('textbox', { name: 'Name' })
  for (const value of ['  Keel  ', '   ']) {
    fireEvent.change(field, { target: { value } })
    fireEvent.blur(field)
  }
  expect(acts()).toEqual([['hear'], ['favour', true], ['set', { name: 'Keel' }], ['set', { name: 'Keel knock' }]])
})

test('its kin are shown once it has been measured', () => {
  const { unmount } = show()
  press('Sounds like this')
  expect(acts()).toEqual([])
  unmount()
  show({ measured: measured as never })
  press('Sounds like this')
  expect(acts()).toEqual([['kin', expect.objectContaining({ name: 'Keel knock', sounding: { brightHz: 900 } })]])
  expect(closed).toHaveBeenCalledTimes(1)
})

test('which channels new clips take is asked of stereo alone, with a warning where they cancel', () => {
  const { unmount } = show()
  expect(screen.queryByRole('radiogroup', { name: 'New clips take' })).toBeNull()
  unmount()
  show({ channel: 'mid', measured: { ...measured, correlation: -0.8, midLossDb: -14 } as never }, 2)
  expect(screen.getByRole('alert').textContent).toMatch(/correlation -0\.80\. They cancel: mid would lose 14 dB\. Take left or right\./)
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'New clips take' })).getByRole('radio', { name: 'Left' }))
  expect(acts()).toEqual([['set', { channel: 'left' }]])
})

test('it goes out to another program and comes back; it is taken back once at a time', async () => {
  let back = () => undefined as void
  mockDone.mockImplementation((what) => (what === 'back' ? new Promise<void>((resolve) => (back = resolve)) : undefined))
  show()
  press('Take out to another program')
  press('Take its changed version back')
  press('Take its changed version back')
  expect(acts()).toEqual([['out', 'Keel knock'], ['back', 'Keel knock']]) // prettier-ignore
  await act(async () => back())
  press('Take its changed version back')
  expect(acts()).toHaveLength(3)
  await act(async () => back())
})

test('tags and deletion are asked for in its place; a sound that is deleted has no sheet any more', () => {
  show({ tags: ['wood', 'wet'] })
  press('Tags: wood, wet')
  press('Tagged')
  expect(screen.getByRole('dialog', { name: 'Keel knock' })).toBeTruthy()
  press('Delete')
  press('Gone')
  expect(closed).toHaveBeenCalledTimes(1)
})

test('Cut closes the sheet and goes to cut; Escape closes it alone', () => {
  show()
  fireEvent.keyDown(window, { key: 'Escape' })
  expect([closed.mock.calls.length, cut.mock.calls.length]).toEqual([1, 0])
  press('Cut')
  expect([closed.mock.calls.length, cut.mock.calls.length]).toEqual([2, 1])
})
