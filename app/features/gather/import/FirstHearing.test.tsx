import { act, fireEvent, render, screen } from '@testing-library/react'

import { libraryView } from '../list/library-view'
import { FirstHearing } from './FirstHearing'

const mockHear = jest.fn<Promise<string | undefined>, [File, number, () => void]>(async () => undefined)
const mockLevel = jest.fn()
const mockStop = jest.fn()
jest.mock('../../../audio/playing/hear-file', () => ({
  hearFile: (file: File, db: number, onEnd: () => void) => mockHear(file, db, onEnd),
  setFileLevel: (db: number) => mockLevel(db) as unknown,
  stopFile: () => mockStop() as unknown,
  fileLevel: () => 0,
}))
jest.mock('../../../ui/layout/LongList', () => ({
  LongList: ({ items, draw, keyOf }: { items: File[]; draw: (item: File) => React.ReactNode; keyOf: (item: File) => string }) =>
    items.map((item) => <div key={keyOf(item)}>{draw(item)}</div>),
}))

const files = ['oar.wav', 'hull.wav', 'notes.txt'].map((name) => new File([new Uint8Array(2048)], name))
const take = jest.fn()
const close = jest.fn()
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const tick = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  libraryView.setState({ hearDb: -6 })
})

test('only the ticked files come in; with none ticked nothing does', () => {
  render(<FirstHearing files={files} onTake={take} onClose={close} />)
  tick('hull.wav')
  press('Bring in 2 of 3')
  expect(take).toHaveBeenCalledWith([files[0], files[2]])
  expect(close).toHaveBeenCalledTimes(1)
  press('Tick all')
  press('Tick none')
  expect(screen.getByRole('button', { name: 'Bring in 0 of 3' }).getAttribute('aria-disabled')).toBe('true')
})

test('files are heard one after another at the level of listening; what cannot be read says why; leaving ends it', async () => {
  const { unmount } = render(<FirstHearing files={files} onTake={take} onClose={close} />)
  await act(async () => press('Hear the next'))
  await act(async () => press('Hear the next'))
  expect(mockHear.mock.calls.map(([file, db]) => [file.name, db])).toEqual([['oar.wav', -6], ['hull.wav', -6]]) // prettier-ignore
  expect(screen.getByRole('button', { name: 'Stop hearing hull.wav' }).getAttribute('aria-pressed')).toBe('true')
  act(() => mockHear.mock.calls[1]![2]())
  expect(screen.queryByRole('button', { name: /^Stop hearing/ })).toBeNull()
  mockHear.mockResolvedValueOnce('This is no audio.')
  await act(async () => press('Hear notes.txt'))
  expect(screen.getByText('This is no audio.')).toBeTruthy()
  expect(screen.queryByRole('button', { name: /^Stop hearing/ })).toBeNull() // nothing sounds
  expect(screen.getByRole('checkbox', { name: 'notes.txt' }).getAttribute('aria-checked')).toBe('false')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Level of listening' }), { key: 'ArrowRight' })
  expect([libraryView.getState().hearDb, mockLevel.mock.lastCall]).toEqual([-5, [-5]])
  await act(async () => press('Hear oar.wav'))
  await act(async () => press('Stop hearing oar.wav'))
  const stops = mockStop.mock.calls.length
  unmount()
  expect(mockStop.mock.calls.length).toBe(stops + 1)
}) // prettier-ignore
