import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { session } from '../../../kit-view/session'
import { audio, info } from '../../../testing/a-kit'
import { changeView, libraryView, showAll } from './library-view'
import { LibraryBar } from './LibraryBar'
import { SourceList } from './SourceList'

let mockShown: { all: Source[]; own: Source[]; shown: Source[]; query?: object }
let mockFolders = true
const mockHear = jest.fn()
const mockJudge = jest.fn()
const mockFavour = jest.fn()
const mockTake = jest.fn()
const mockScroll = jest.fn()
const mockTop = jest.fn()
jest.mock('@tanstack/react-virtual', () => ({
  useVirtualizer: ({ count }: { count: number }) => ({
    getVirtualItems: () => Array.from({ length: count }, (_, index) => ({ index })),
    getTotalSize: () => count * 60,
    scrollToIndex: (...given: unknown[]) => mockScroll(...given) as unknown,
    scrollToOffset: (offset: number) => mockTop(offset) as unknown,
  }),
}))
jest.mock('../../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sources: { store: createStore(() => ({ entries: {}, loaded: true })) } }
})
jest.mock('./use-library', () => {
  const { useStore } = jest.requireActual<typeof import('zustand')>('zustand') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const { libraryView: view } = jest.requireActual<{ libraryView: never }>('./library-view')
  return { useShownSounds: () => ({ ...mockShown, view: useStore(view) as object }) }
})
jest.mock('./sound-actions', () => ({
  hearSound: (...given: unknown[]) => mockHear(...given) as unknown,
  judgeSound: (...given: unknown[]) => mockJudge(...given) as unknown,
  favourSounds: (...given: unknown[]) => mockFavour(...given) as unknown,
}))
jest.mock('./SelectionBar', () => ({ SelectionBar: ({ selection }: { selection: Set<string> }) => `${selection.size} ticked` }))
jest.mock('./DragTicks', () => ({ DragTicks: () => null }))
jest.mock('./KinBar', () => ({ KinBar: () => 'kin' }))
jest.mock('../import/use-import', () => ({ useImport: () => ({ take: (files: unknown) => mockTake(files) as unknown }) }))
jest.mock('../import/FirstHearing', () => ({ FirstHearing: ({ files }: { files: unknown[] }) => `${files.length} to hear first` }))
jest.mock('../import/ImportReport', () => ({ ImportReport: () => null }))
jest.mock('../sheets/SoundSheet', () => ({ SoundSheet: ({ source }: { source: Source }) => `sheet of ${source.name}` }))
jest.mock('../sheets/ViewSheet', () => ({ ViewSheet: () => 'order and narrow' }))
jest.mock('../../../kit-view', () => ({
  useSession: jest.requireActual<typeof import('../../../kit-view/session')>('../../../kit-view/session').useSession, // eslint-disable-line @typescript-eslint/consistent-type-imports
}))
jest.mock('../../../kit-view/MiniWave', () => ({ MiniWave: () => null }))
jest.mock('../../../ui/device/choose-files', () => ({
  canChooseFolders: () => mockFolders,
  chooseFiles: () => Promise.resolve([new File([], 'one.wav')]),
  chooseFolder: () => Promise.resolve([new File([], 'one.wav'), new File([], 'two.wav')]),
}))
const { sources } = jest.requireMock<{ sources: { store: { setState(state: object): void } } }>('../../../documents')

const sounds = Array.from({ length: 20 }, (_, i) => createSource(makeId, audio, info, `plank ${i}`))
const cut = jest.fn()
const list = () => screen.getByRole('group', { name: 'Sounds' })
const key = (name: string, more: object = {}) => fireEvent.keyDown(list(), { key: name, ...more })
const chosen = () => sounds.findIndex(({ id }) => id === session.getState().sourceId)
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const showList = () => render(<SourceList onCut={cut} />)

beforeEach(() => {
  jest.clearAllMocks()
  mockFolders = true
  mockShown = { all: sounds, own: sounds.slice(0, 3), shown: sounds }
  sources.store.setState({ entries: Object.fromEntries(sounds.map((doc) => [doc.id, { doc }])), loaded: true })
  session.setState({ sourceId: undefined })
  act(() => libraryView.setState({ words: '', scope: 'kit', only: 'all', hearsOnSelect: true, hearsFirst: false }))
})

test('arrows, pages and ends go from sound to sound within the list, and sound them where that is wanted', () => {
  showList()
  const went = ['ArrowUp', 'ArrowDown', 'ArrowDown', 'PageDown', 'ArrowUp', 'PageUp', 'PageUp', 'End', 'ArrowDown', 'PageDown', 'Home'].map((name) => {
    key(name)
    return chosen()
  })
  expect(went).toEqual([0, 1, 2, 10, 9, 1, 0, 19, 19, 19, 0])
  expect(mockHear).toHaveBeenCalledTimes(11)
  expect(mockScroll).toHaveBeenLastCalledWith(0, { align: 'auto' })
  act(() => changeView({ hearsOnSelect: false }))
  key('ArrowDown')
  expect([chosen(), mockHear.mock.calls.length]).toEqual([1, 11])
}) // prettier-ignore

test('what is chosen is heard, cut, judged, made a favourite and opened by keys; a second time takes a verdict back', () => {
  const kept = { ...sounds[2]!, verdict: 'keep' as const, favourite: true }
  mockShown = { ...mockShown, shown: [sounds[0]!, { ...sounds[1]!, verdict: 'pass' }, kept] }
  showList()
  for (const name of ['Enter', ' ', '+', '-', '*', 'F2']) key(name) // nothing is chosen
  expect([cut, mockHear, mockJudge, mockFavour].map(({ mock }) => mock.calls.length)).toEqual([0, 0, 0, 0])
  act(() => session.setState({ sourceId: sounds[0]!.id }))
  for (const name of ['Enter', ' ', '+', '-', '*']) key(name)
  expect([cut.mock.lastCall![0].name, mockHear.mock.lastCall![0].name]).toEqual(['plank 0', 'plank 0'])
  expect(mockJudge.mock.calls.map(([, verdict]) => verdict as string)).toEqual(['keep', 'pass'])
  expect(mockFavour).toHaveBeenLastCalledWith([sounds[0]], true)
  act(() => session.setState({ sourceId: sounds[1]!.id }))
  key('-')
  act(() => session.setState({ sourceId: sounds[2]!.id }))
  key('+')
  key('*')
  expect(mockJudge.mock.calls.slice(2).map(([, verdict]) => verdict as string)).toEqual(['open', 'open'])
  expect(mockFavour).toHaveBeenLastCalledWith([kept], false)
  key('F2')
  expect(screen.getByText(/sheet of plank 2/)).toBeTruthy()
})

test('keys that are another’s are left: with Ctrl, on a button of a row, and what means nothing here', () => {
  showList()
  act(() => session.setState({ sourceId: sounds[4]!.id }))
  key('ArrowDown', { ctrlKey: true })
  key('ArrowDown', { metaKey: true })
  fireEvent.keyDown(screen.getAllByRole('button', { name: 'Cut plank 4' })[0]!, { key: 'Enter' })
  expect([chosen(), cut.mock.calls.length]).toEqual([4, 0])
  expect(key('z')).toBe(true) // not taken
  expect(key('End')).toBe(false)
})

test('several are selected from the bar or from a row, and a range with Shift', () => {
  showList()
  press('Select')
  expect(screen.getByText(/0 ticked/)).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Select' })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Select plank 2' }))
  fireEvent.click(screen.getByRole('button', { name: 'Select plank 6' }), { shiftKey: true })
  expect(screen.getByText(/5 ticked/)).toBeTruthy()
})

test('files come in at once, or are heard first where that is wanted', async () => {
  showList()
  press('Import files')
  await waitFor(() => expect(mockTake).toHaveBeenCalledTimes(1))
  act(() => changeView({ hearsFirst: true }))
  press('Import a folder')
  await waitFor(() => expect(screen.getByText(/2 to hear first/)).toBeTruthy())
  expect(mockTake).toHaveBeenCalledTimes(1)
})

test('an empty list says why, and how to see more: of other kits, or without what narrows it', () => {
  mockShown = { all: sounds.slice(0, 1), own: [], shown: [] }
  const one = showList()
  press('Show the one of other kits')
  expect(libraryView.getState().scope).toBe('all')
  one.unmount()
  mockShown = { all: sounds, own: sounds.slice(0, 3), shown: [] }
  act(() => changeView({ scope: 'kit' }))
  const many = showList()
  expect(screen.getByRole('button', { name: 'Show all 17 of other kits' })).toBeTruthy()
  act(() => changeView({ words: 'rope' }))
  expect(screen.getByText('No sound is like this.')).toBeTruthy()
  press('Show all sounds')
  expect(libraryView.getState()).toMatchObject({ words: '', scope: 'all' })
  many.unmount()
  mockShown = { all: [], own: [], shown: [] }
  const none = showList()
  expect(screen.getByText(/Nothing of this kit yet/)).toBeTruthy()
  expect(screen.queryByRole('button', { name: /^Show/ })).toBeNull()
  none.unmount()
  sources.store.setState({ loaded: false })
  showList()
  expect(screen.getByLabelText('Reading the sounds')).toBeTruthy()
  expect(screen.queryByText(/Nothing of this kit yet/)).toBeNull()
})

test('a list opens where one was, and on its top when it turns to the kin of a sound', () => {
  session.setState({ sourceId: sounds[7]!.id })
  showList().unmount()
  expect(mockScroll.mock.calls).toEqual([[7, { align: 'auto' }]])
  mockShown = { ...mockShown, query: {} }
  showList()
  expect(mockTop).toHaveBeenCalledWith(0)
  expect(screen.getByText(/kin/)).toBeTruthy()
})

test('the bar counts whose sounds there are, looks among all for words, and says when the list is narrowed', () => {
  const bar = () => <LibraryBar total={20} own={3} view={libraryView.getState()} tagged={[]} isSelecting onSelect={jest.fn()} onFiles={jest.fn()} />
  const { rerender } = render(bar())
  const isChosen = (name: string) => screen.getByRole('radio', { name }).getAttribute('aria-checked') === 'true'
  expect([isChosen('This kit 3'), isChosen('All 20')]).toEqual([true, false])
  act(() => changeView({ words: ' rope ' }))
  rerender(bar())
  expect([isChosen('This kit 3'), isChosen('All 20')]).toEqual([false, true])
  fireEvent.click(screen.getByRole('radio', { name: 'This kit 3' }))
  expect(libraryView.getState()).toMatchObject({ words: '', scope: 'kit' })
  act(() => changeView({ words: 'rope' }))
  rerender(bar())
  fireEvent.click(screen.getByRole('radio', { name: 'All 20' }))
  expect(libraryView.getState()).toMatchObject({ words: 'rope', scope: 'all' })
  act(() => changeView({ words: '', only: 'kept' }))
  rerender(bar())
  press('Narrowed')
  expect(screen.getByText(/order and narrow/)).toBeTruthy()
  act(() => showAll())
  mockFolders = false
  rerender(bar())
  expect(screen.getByRole('button', { name: 'Order' })).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Import a folder' })).toBeNull()
}) // prettier-ignore
