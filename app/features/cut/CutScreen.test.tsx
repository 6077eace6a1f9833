import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../documents/make-id'
import { session } from '../../kit-view/session'
import { audio, info } from '../../testing/a-kit'
import { cutLooks } from './bench/looks'
import { CutScreen } from './CutScreen'

let mockWide = false
const mockGo = jest.fn()
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('expo-router', () => ({ router: { navigate: (where: string) => mockGo(where) as unknown } }))
jest.mock('../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sources: { store: createStore(() => ({ entries: {} })) } }
})
jest.mock('../../kit-view', () => ({
  useKitId: () => 'kit-1',
  useSession: jest.requireActual<typeof import('../../kit-view/session')>('../../kit-view/session').useSession, // eslint-disable-line @typescript-eslint/consistent-type-imports
}))
jest.mock('../gather', () => ({
  SourceList: ({ onCut }: { onCut: (source: object) => void }) => <button onClick={() => onCut({ id: mockId })}>A recording</button>,
}))
jest.mock('./bench/CutBench', () => ({ CutBench: ({ source }: { source: Source }) => `bench of ${source.name}` }))
const { sources } = jest.requireMock<{ sources: { store: { setState(state: object): void } } }>('../../documents')

const source = createSource(makeId, audio, info, 'Slipway')
const mockId = source.id
const list = () => screen.queryByRole('button', { name: 'A recording' })

beforeEach(() => {
  mockWide = false
  sources.store.setState({ entries: { [source.id]: { doc: source } } })
  session.setState({ sourceId: undefined })
  cutLooks.setState({ showsRecordings: true })
})

test('on a phone a recording is chosen first, then it alone is seen; without one a recording can be made', () => {
  render(<CutScreen />)
  fireEvent.click(screen.getByRole('button', { name: 'Record' }))
  expect(mockGo).toHaveBeenCalledWith('/kit/kit-1/gather')
  fireEvent.click(list()!)
  expect(session.getState().sourceId).toBe(source.id)
  expect(screen.getByText('bench of Slipway')).toBeTruthy()
  expect(list()).toBeNull()
})

test('on a wide screen the list stands beside the bench, folded away only while something is on it', () => {
  mockWide = true
  render(<CutScreen />)
  expect(screen.getByText('Choose a recording to cut')).toBeTruthy()
  fireEvent.click(list()!)
  expect([list() !== null, screen.queryByText('bench of Slipway') !== null]).toEqual([true, true])
  act(() => cutLooks.setState({ showsRecordings: false }))
  expect([list() !== null, screen.queryByText('bench of Slipway') !== null]).toEqual([false, true])
  act(() => session.setState({ sourceId: undefined }))
  expect(list()).not.toBeNull()
})

test('a recording that is gone leads back to the others', () => {
  session.setState({ sourceId: source.id })
  render(<CutScreen />)
  act(() => sources.store.setState({ entries: {} }))
  expect(screen.getByText('Choose a recording')).toBeTruthy()
})
