import { createKit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../documents/make-id'
import { aKitOf, aPad } from '../testing/a-kit'
import { KitHeader } from './KitHeader'
import { KitMissing } from './KitMissing'
import { NoSuchPage } from './NoSuchPage'
import { PadStrip } from './PadStrip'
import { SoloBar } from './SoloBar'
import { TideNav } from './TideNav'

const mockNavigate = jest.fn()
let mockPath = '/kit/kit-1/board'
jest.mock('expo-router', () => ({
  router: { navigate: (to: string) => mockNavigate(to), replace: (to: string) => mockNavigate(to) },
  usePathname: () => mockPath,
  useGlobalSearchParams: () => ({ kitId: 'kit-1' }),
  Link: ({ href, children }: { href: string; children: unknown }) => {
    const { createElement } = jest.requireActual<{ createElement(...given: unknown[]): never }>('react')
    return createElement('a', { href }, children)
  },
}))
const mockFetch = jest.fn()
jest.mock('../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    kits: { store: createStore(() => ({ entries: {}, setApart: {}, loaded: false })), undo: jest.fn(), redo: jest.fn() },
    sources: { store: createStore(() => ({ entries: {} })), undo: jest.fn(), redo: jest.fn() },
    performances: { store: createStore(() => ({ entries: {} })), undo: jest.fn(), redo: jest.fn() },
    saveState: createStore(() => ({ unkept: 0, waiting: 0, state: 'saved', refused: 0 })),
    device: { fetchDocument: (...given: unknown[]) => mockFetch(...given) as unknown },
  }
})
jest.mock('../documents/library', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { library: createStore(() => ({ past: [], future: [] })), undoLibrary: jest.fn(), redoLibrary: jest.fn() }
})
jest.mock('../audio/engine/sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    soloed: createStore(() => ({ pads: [], rays: [], buses: [] as string[], bands: [], turns: [] })),
    strikePad: jest.fn(),
    releasePad: jest.fn(),
    kitNow: () => undefined,
  }
})
const mockNotify = jest.fn()
jest.mock('../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('./SaveMark', () => ({ SaveMark: () => null }))

const documents = jest.requireMock<{ kits: { store: { setState(state: object): void }; undo: jest.Mock; redo: jest.Mock }; sources: { store: { setState(state: object): void }; undo: jest.Mock }; performances: { store: { setState(state: object): void }; undo: jest.Mock }; saveState: { setState(state: object): void } }>('../documents') // prettier-ignore
const sound = jest.requireMock<{ soloed: { setState(state: object): void } }>('../audio/engine/sound')
const kit = { ...aKitOf(aPad(1), aPad(1)), id: 'kit-1' as never, name: 'Low Tide' }
const entry = (past: unknown[] = [], future: unknown[] = []) => ({ entries: { 'kit-1': { doc: kit, history: { past, future } } } })
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  mockPath = '/kit/kit-1/board'
  mockFetch.mockResolvedValue(undefined)
  act(() => documents.kits.store.setState({ entries: {}, setApart: {}, loaded: false }))
})

test('the places are links along the line, and the one that one is in says so', () => {
  mockPath = '/kit/kit-1/shape'
  render(<TideNav />)
  const links = [...document.querySelectorAll('a')]
  expect(links.map((link) => link.getAttribute('href'))).toEqual(['gather', 'cut', 'board', 'shape', 'groove', 'mix', 'ship'].map((place) => `/kit/kit-1/${place}`)) // prettier-ignore
  const here = screen.getAllByLabelText(/^[A-Z][a-z]+$/).filter((one) => one.getAttribute('aria-current') === 'page')
  expect(here.map((one) => one.getAttribute('aria-label'))).toEqual(['Shape'])
})

test('one undo takes back what was done last, wherever it was, and says so where it is not seen', () => {
  act(() => documents.kits.store.setState(entry()))
  const { rerender } = render(<KitHeader />)
  expect(screen.getByText('Low Tide')).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Undo' }).getAttribute('aria-disabled')).toBe('true')
  act(() => documents.kits.store.setState(entry([{ at: 1 }], [{ at: 2, undoneAt: 3 }])))
  press('Undo')
  press('Redo')
  expect([documents.kits.undo.mock.calls, documents.kits.redo.mock.calls]).toEqual([[['kit-1']], [['kit-1']]])
  const walk = { doc: { name: 'Walk' }, history: { past: [{ at: 5 }], future: [] } }
  act(() => documents.sources.store.setState({ entries: { 'source-1': walk } }))
  press('Undo in the recording Walk')
  expect(documents.sources.undo.mock.calls).toEqual([['source-1']])
  expect(mockNotify).toHaveBeenCalledWith('Taken back in the recording Walk.')
  expect(screen.getByRole('button', { name: 'Redo' }).getAttribute('aria-disabled')).toBe('true') // something newer was done
  const played = { doc: { id: 'performance-1', name: 'Low Tide 1', kitId: 'kit-1' }, history: { past: [{ at: 12 }], future: [] } }
  const elsewhere = { doc: { id: 'performance-2', name: 'Harbour 1', kitId: 'kit-2' }, history: { past: [{ at: 15 }], future: [] } }
  act(() => documents.performances.store.setState({ entries: { 'performance-1': played, 'performance-2': elsewhere } }))
  press('Undo in the performance Low Tide 1')
  expect(documents.performances.undo.mock.calls).toEqual([['performance-1']]) // another kit’s is not of this one
  expect(mockNotify).toHaveBeenLastCalledWith('Taken back in the performance Low Tide 1.')
  act(() => documents.performances.store.setState({ entries: {} }))
  act(() => documents.sources.store.setState({ entries: {} }))
  mockPath = '/kit/kit-1/gather'
  rerender(<KitHeader />)
  expect(screen.getByRole('button', { name: 'Undo in the kit' })).toBeTruthy()
  fireEvent.click(screen.getAllByRole('button', { name: 'All kits' })[0])
  expect(mockNavigate).toHaveBeenCalledWith('/')
})

test('a kit without pads has no round to hear', () => {
  act(() => documents.kits.store.setState({ entries: { 'kit-1': { doc: createKit(makeId, 'New'), history: { past: [], future: [] } } } }))
  render(<KitHeader />)
  expect(screen.queryByRole('button', { name: /^Hear the round/ })).toBeNull()
})

test('a kit is called missing only once this device and the server have been asked', async () => {
  let answer: () => void = () => undefined
  mockFetch.mockReturnValue(new Promise<void>((resolve) => (answer = resolve)))
  render(<KitMissing kitId="kit-1" />)
  expect(screen.getByText('Opening the kit')).toBeTruthy()
  expect(mockFetch).not.toHaveBeenCalled()
  act(() => documents.kits.store.setState({ loaded: true }))
  expect(mockFetch).toHaveBeenCalledWith('kit', 'kit-1')
  expect(screen.getByText('Opening the kit')).toBeTruthy()
  await act(async () => answer())
  expect(screen.getByText('This kit is not here')).toBeTruthy()
  press('All kits')
  expect(mockNavigate).toHaveBeenCalledWith('/')
})

test('a kit that cannot be read says why and how to save it; where other tabs hold it, that is said', async () => {
  act(() => documents.kits.store.setState({ loaded: true, setApart: { 'kit-1': { reason: 'It is of a newer form.' } } }))
  const { unmount } = render(<KitMissing kitId="kit-1" />)
  await act(async () => undefined)
  expect(screen.getByText(/^It is of a newer form\. It is set apart/)).toBeTruthy()
  unmount()
  act(() => documents.saveState.setState({ blocked: true }))
  render(<KitMissing kitId="kit-1" />)
  expect(screen.getByText('Close the other tabs')).toBeTruthy()
  await act(async () => undefined)
  act(() => documents.saveState.setState({ blocked: false }))
})

test('pads stand in one line; where there are none, it says what to do and leads there', () => {
  act(() => documents.kits.store.setState({ entries: { 'kit-1': { doc: { ...kit, pads: [] }, history: {} } } }))
  const { unmount } = render(<PadStrip />)
  fireEvent.click(screen.getByText(/^No pads yet/))
  expect(mockNavigate).toHaveBeenCalledWith('/kit/kit-1/gather')
  unmount()
  act(() => documents.kits.store.setState(entry()))
  render(<PadStrip />)
  expect(screen.getAllByRole('button', { name: /^Oar/ })).toHaveLength(2)
})

test('what sounds alone is counted until all may sound again', () => {
  render(<SoloBar />)
  expect(screen.queryByRole('status')).toBeNull()
  act(() => sound.soloed.setState({ pads: ['a'], rays: [] }))
  expect(screen.getByRole('status').textContent).toContain('One pad sounds alone')
  act(() => sound.soloed.setState({ pads: [], buses: ['room'] }))
  expect(screen.getByRole('status').textContent).toContain('One bus sounds alone')
  act(() => sound.soloed.setState({ pads: ['a'], buses: [] }))
  act(() => sound.soloed.setState({ pads: ['a'], rays: ['b'] }))
  expect(screen.getByRole('status').textContent).toContain('2 sound alone')
  press('Let all sound')
  expect(screen.queryByRole('status')).toBeNull()
})

test('an address that leads nowhere says so, and leads to the kits', () => {
  render(<NoSuchPage />)
  expect(screen.getByRole('heading', { name: 'No such page' })).toBeTruthy()
  press('All kits')
  expect(mockNavigate).toHaveBeenCalledWith('/')
})
