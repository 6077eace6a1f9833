import type { Kit, Pad } from '@heliaster/core/kit'
import { act, render, screen } from '@testing-library/react'

import { aKitOf, aPad } from '../testing/a-kit'
import { session } from './session'
import { editKit, hearAgain, kitGesture, padGesture, padName, useChosenPad, usePads } from './use-kit'

const mockStrike = jest.fn()
jest.mock('expo-router', () => ({ useGlobalSearchParams: () => ({ kitId: 'kit-1' }) }))
jest.mock('../audio/engine/sound', () => ({ strikePad: (strike: object) => mockStrike(strike) as unknown }))
jest.mock('../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const gesture = { set: jest.fn(), end: jest.fn() }
  return { kits: { store: createStore(() => ({ entries: {} })), edit: jest.fn(), gesture: jest.fn(() => gesture), ofGesture: gesture } }
})
const { kits } = jest.requireMock<{ kits: { store: { setState(state: object): void }; edit: jest.Mock; gesture: jest.Mock; ofGesture: { set: jest.Mock; end: jest.Mock } } }>('../documents') // prettier-ignore
const named = (name: string): Pad => ({ ...aPad(1), own: { name } })
const kit: Kit = { ...aKitOf(named('Oar'), named('Cleat')), id: 'kit-1' as never }
const [oar, cleat] = kit.pads as [Pad, Pad]
const put = (doc: Kit | undefined) => act(() => kits.store.setState({ entries: doc ? { 'kit-1': { doc } } : {} }))
const edits = [{ type: 'removePad', padId: oar.id }] as const

beforeEach(() => {
  jest.clearAllMocks()
  put(kit)
  session.setState({ padId: undefined, hearsAgain: true })
})

test('the pad that is worked on is the one chosen last, else the first; without pads or kit there is none', () => {
  function Shown() {
    const chosen = useChosenPad()
    return <p>{`${usePads().length} pads, ${chosen ? padName(chosen.kit, chosen.pad) : 'none'}`}</p>
  }
  render(<Shown />)
  const says = (words: string) => expect(screen.getByText(words)).toBeTruthy()
  says('2 pads, Oar')
  act(() => session.setState({ padId: cleat.id }))
  says('2 pads, Cleat')
  act(() => session.setState({ padId: 'gone' as never }))
  says('2 pads, Oar')
  put({ ...kit, pads: [] })
  says('0 pads, none')
  put(undefined)
  says('0 pads, none')
})

test('a pad without a name says so', () => {
  expect([padName(kit, oar), padName(kit, { ...oar, own: {} })]).toEqual(['Oar', 'Unnamed pad'])
})

test('after an edit its pad is heard where one is named, unless that is switched off or the pad is gone', () => {
  editKit(kit.id, [...edits])
  expect([kits.edit.mock.calls, mockStrike.mock.calls]).toEqual([[[kit.id, edits]], []])
  editKit(kit.id, [...edits], cleat.id)
  expect(mockStrike.mock.calls).toEqual([[{ padId: cleat.id, velocity: 100 }]])
  hearAgain(kit.id, cleat.id, 40)
  expect(mockStrike).toHaveBeenLastCalledWith({ padId: cleat.id, velocity: 40 })
  hearAgain(kit.id, 'gone' as never)
  hearAgain('another' as never, cleat.id)
  session.setState({ hearsAgain: false })
  hearAgain(kit.id, cleat.id)
  expect(mockStrike).toHaveBeenCalledTimes(2)
})

test('a drag is one step, begun with its first edit; one that moved nothing ends nothing', () => {
  const ended = jest.fn()
  const drag = kitGesture(kit.id, ended)
  drag.end()
  expect([kits.gesture.mock.calls.length, ended.mock.calls.length]).toEqual([0, 0])
  drag.set([...edits])
  drag.set([])
  expect([kits.gesture.mock.calls.length, kits.ofGesture.set.mock.calls]).toEqual([1, [[edits], [[]]]])
  drag.end()
  drag.end()
  expect([kits.ofGesture.end.mock.calls.length, ended.mock.calls.length]).toEqual([1, 1])
  drag.set([...edits])
  expect(kits.gesture).toHaveBeenCalledTimes(2)
})

test('a drag on a pad is heard when it ends', () => {
  const drag = padGesture(kit.id, cleat.id)
  drag.set([...edits])
  expect(mockStrike).not.toHaveBeenCalled()
  drag.end()
  expect(mockStrike.mock.calls).toEqual([[{ padId: cleat.id, velocity: 100 }]])
})
