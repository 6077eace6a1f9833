import type { Kit, Performance } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { aKitOf } from '../../testing/a-kit'
import { PerformancesScreen } from './PerformancesScreen'

let mockWide = false
let mockKit: Kit | undefined
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('../../kit-view', () => ({ useKit: () => mockKit }))
jest.mock('../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { performances: { store: createStore(() => ({ entries: {} })) } }
})
jest.mock('./bench/PerformanceBench', () => ({
  PerformanceBench: ({ performance, onLeave }: { performance: Performance; onLeave?: () => void }) => (
    <>
      <span>{`bench of ${performance.name}`}</span>
      {onLeave && <button onClick={onLeave}>Back</button>}
    </>
  ),
}))
jest.mock('./JustPlayed', () => ({
  JustPlayed: ({ onKept }: { onKept: (id: string) => void }) => <button onClick={() => onKept('second')}>Keep it</button>,
}))
jest.mock('./KeptList', () => ({
  KeptList: ({ kept, openId, onOpen }: { kept: Performance[]; openId?: string; onOpen: (id: string) => void }) =>
    kept.map(({ id, name }) => (
      <button key={id} aria-pressed={id === openId} onClick={() => onOpen(id)}>
        {name}
      </button>
    )),
}))
const { performances } = jest.requireMock<{ performances: { store: { setState(state: object): void } } }>('../../documents')

const kept = (id: string, kitId: string, playedAt: number) => ({ doc: { id, kitId, playedAt, name: `take ${id}` } })
const names = () => screen.queryAllByRole('button', { name: /^take/ }).map(({ textContent }) => textContent)
const isOpen = (id: string) => screen.queryByText(`bench of take ${id}`) !== null
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  mockWide = false
  mockKit = aKitOf()
  const { id } = mockKit
  performances.store.setState({ entries: { first: kept('first', id, 1), second: kept('second', id, 2), other: kept('other', 'kit-x', 3) } }) // prettier-ignore
})

test('this kit’s performances stand newest first; on a phone one is opened, and left again', () => {
  render(<PerformancesScreen />)
  expect(names()).toEqual(['take second', 'take first'])
  press('take first')
  expect([isOpen('first'), names()]).toEqual([true, []])
  press('Back')
  expect([isOpen('first'), names().length]).toEqual([false, 2])
  press('Keep it')
  expect(isOpen('second')).toBe(true)
})

test('on a wide screen the newest is open beside the list, and cannot be left', () => {
  mockWide = true
  render(<PerformancesScreen />)
  expect([isOpen('second'), screen.queryByRole('button', { name: 'Back' })]).toEqual([true, null])
  expect(screen.getByRole('button', { name: 'take second' }).getAttribute('aria-pressed')).toBe('true')
  press('take first')
  expect([isOpen('first'), isOpen('second')]).toEqual([true, false])
  act(() => performances.store.setState({ entries: {} }))
  expect(screen.getByText(/Play the pads/)).toBeTruthy()
})

test('before there is a kit nothing is drawn', () => {
  mockKit = undefined
  expect(render(<PerformancesScreen />).container.textContent).toBe('')
})
