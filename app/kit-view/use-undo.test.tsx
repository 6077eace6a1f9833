import { act, fireEvent, render, screen } from '@testing-library/react'

import { session } from './session'
import { useUndo, useUndoKeys } from './use-undo'

let mockPath = '/kit/kit-1/board'
const mockNotify = jest.fn()
jest.mock('expo-router', () => ({ usePathname: () => mockPath }))
jest.mock('../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('./use-kit', () => ({ useKitId: () => 'kit-1' }))
jest.mock('../audio/playing/hands/computer-keys', () => ({ isTyping: (on: HTMLElement) => on.tagName === 'INPUT' }))
jest.mock('../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const kind = () => ({ store: createStore(() => ({ entries: {} })), undo: jest.fn(), redo: jest.fn() })
  return { kits: kind(), sources: kind(), performances: kind() }
})
jest.mock('../documents/library', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { library: createStore(() => ({ past: [], future: [] })), undoLibrary: jest.fn(), redoLibrary: jest.fn() }
})
interface Kind {
  readonly store: { setState(state: object): void }
  readonly undo: jest.Mock
  readonly redo: jest.Mock
}
const { kits, sources, performances } = jest.requireMock<Record<'kits' | 'sources' | 'performances', Kind>>('../documents')
const { library, undoLibrary, redoLibrary } = jest.requireMock<{ library: Kind['store']; undoLibrary: jest.Mock; redoLibrary: jest.Mock }>('../documents/library') // prettier-ignore

/** Steps made at these times, and taken back at those. */
const steps = (made: number[], taken: number[] = []) => ({
  past: made.map((at) => ({ at })),
  future: taken.map((undoneAt) => ({ at: 0, undoneAt })),
})
const entry = (id: string, name: string, history: object, more: object = {}) => ({ [id]: { doc: { name, ...more }, history } })

function Steps() {
  const undo = useUndo()
  useUndoKeys()
  return (
    <>
      <button onClick={undo.undo} disabled={!undo.canUndo}>{`Undo${undo.undoWhere}`}</button>
      <button onClick={undo.redo} disabled={!undo.canRedo}>{`Redo${undo.redoWhere}`}</button>
      <input aria-label="typing" />
    </>
  )
}
const names = () => screen.getAllByRole('button').map(({ textContent }) => textContent)
const [undo, redo] = [() => fireEvent.click(screen.getAllByRole('button')[0]!), () => fireEvent.click(screen.getAllByRole('button')[1]!)]
const show = (path: string) => {
  mockPath = `/kit/kit-1/${path}`
  return render(<Steps />)
}

beforeEach(() => {
  jest.clearAllMocks()
  for (const { store } of [kits, sources, performances]) store.setState({ entries: {} })
  library.setState({ past: [], future: [] })
  session.setState({ sourceId: undefined })
})

test('with nothing to take back both are asleep, and say whereof', () => {
  for (const [path, words] of [['board', ''], ['cut', ' in this recording'], ['gather', ' in the list of sounds'], ['performances', ' here']]) {
    const { unmount } = show(path!)
    expect(names()).toEqual([`Undo${words}`, `Redo${words}`])
    expect(screen.getAllByRole('button').every((button) => (button as HTMLButtonElement).disabled)).toBe(true)
    unmount()
  }
}) // prettier-ignore

test('what was done last is taken back, wherever that was; where it is not seen it is said', () => {
  kits.store.setState({ entries: entry('kit-1', 'Low Tide', steps([5])) })
  show('board')
  undo()
  expect(kits.undo).toHaveBeenCalledWith('kit-1')
  expect(mockNotify).not.toHaveBeenCalled()
  act(() => library.setState(steps([9])))
  undo()
  expect(undoLibrary).toHaveBeenCalledTimes(1)
  expect(mockNotify).toHaveBeenLastCalledWith('Taken back in the list of sounds.')
  act(() => sources.store.setState({ entries: entry('s-1', 'Slipway', steps([12])) }))
  undo()
  expect(sources.undo).toHaveBeenCalledWith('s-1')
  expect(mockNotify).toHaveBeenLastCalledWith('Taken back in the recording Slipway.')
  act(() => performances.store.setState({ entries: entry('p-1', 'Low Tide 1', steps([20]), { kitId: 'kit-1' }) }))
  undo()
  expect(performances.undo).toHaveBeenCalledWith('p-1')
  expect(mockNotify).toHaveBeenLastCalledWith('Taken back in the performance Low Tide 1.')
  expect([kits.undo, undoLibrary, sources.undo].map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1])
})

test('what was taken back last is done again, and a performance of another kit is none of this', () => {
  kits.store.setState({ entries: entry('kit-1', 'Low Tide', steps([], [5])) })
  performances.store.setState({ entries: entry('p-1', 'Another', steps([90], [90]), { kitId: 'kit-2' }) })
  show('mix')
  redo()
  expect(kits.redo).toHaveBeenCalledWith('kit-1')
  act(() => library.setState(steps([], [9])))
  redo()
  expect(redoLibrary).toHaveBeenCalledTimes(1)
  expect(mockNotify).toHaveBeenLastCalledWith('Done again in the list of sounds.')
  act(() => sources.store.setState({ entries: entry('s-1', 'Slipway', steps([], [30])) }))
  redo()
  expect(sources.redo).toHaveBeenCalledWith('s-1')
  expect(performances.redo).not.toHaveBeenCalled()
})

test('a step is seen in its own place: in Cut those of the recording that is open, in Gather those of the list', () => {
  kits.store.setState({ entries: entry('kit-1', 'Low Tide', steps([5])) })
  const kitFromCut = show('cut')
  expect(names()[0]).toBe('Undo in the kit')
  undo()
  expect(mockNotify).toHaveBeenLastCalledWith('Taken back in the kit.')
  act(() => sources.store.setState({ entries: entry('s-1', 'Slipway', steps([12])) }))
  expect(names()[0]).toBe('Undo in the recording Slipway')
  act(() => session.setState({ sourceId: 's-1' as never }))
  expect(names()[0]).toBe('Undo in this recording')
  undo()
  expect(mockNotify).toHaveBeenCalledTimes(1)
  kitFromCut.unmount()
  library.setState(steps([40]))
  const list = show('gather')
  expect(names()[0]).toBe('Undo in the list of sounds')
  undo()
  expect(mockNotify).toHaveBeenCalledTimes(1)
  list.unmount()
  performances.store.setState({ entries: entry('p-1', 'Low Tide 1', steps([50]), { kitId: 'kit-1' }) })
  show('performances')
  undo()
  expect([performances.undo.mock.calls.length, mockNotify.mock.calls.length]).toEqual([1, 1])
})

test('Ctrl or Cmd with Z takes back, with Shift or Y does again; while one types the field keeps them', () => {
  kits.store.setState({ entries: entry('kit-1', 'Low Tide', steps([5], [6])) })
  const { unmount } = show('board')
  const key = (name: string, more: object, on: Element = document.body) => fireEvent.keyDown(on, { key: name, ...more })
  const done = () => [kits.undo.mock.calls.length, kits.redo.mock.calls.length]
  expect(key('z', { ctrlKey: true })).toBe(false)
  expect([done(), key('Z', { metaKey: true }), done()]).toEqual([[1, 0], false, [2, 0]])
  key('Z', { ctrlKey: true, shiftKey: true })
  key('y', { ctrlKey: true })
  expect(done()).toEqual([2, 2])
  key('z', {})
  key('x', { ctrlKey: true })
  key('z', { ctrlKey: true }, screen.getByLabelText('typing'))
  expect(done()).toEqual([2, 2])
  unmount()
  key('z', { ctrlKey: true })
  expect(done()).toEqual([2, 2])
})
