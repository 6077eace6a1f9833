import { cellsOf } from '@heliaster/core/place'
import { clipsOfPad, createSource } from '@heliaster/core/kit'
import type { AudioHash, Kit, KitEdit, Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { gathered } from '../../../../documents/gathered'
import { makeId } from '../../../../documents/make-id'
import { after, aKitOf, aPad, info } from '../../../../testing/a-kit'
import { FillSheet } from './FillSheet'

const sound = (letter: string, name: string, seconds = 1, given: Partial<Source> = {}): Source =>
  createSource(makeId, letter.repeat(64) as AudioHash, { ...info, frames: 48000 * seconds }, name, given)
const sounds = [
  sound('c', 'cleat 2', 1, { family: 'wood', measured: { loudnessDb: -18, peakDb: -3 } as never }),
  sound('d', 'cleat 10'),
  sound('e', 'anchor drop'),
  sound('f', 'Whole walk', 60),
  sound('a', 'passed one', 1, { verdict: 'pass' }),
]
let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn(async () => undefined)
let mockImport: (progress: (state: object) => void) => void
jest.mock('../../../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sources: { store: createStore(() => ({ entries: {}, loaded: true })) } }
})
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../kit-view/use-kit', () => ({ useKit: () => mockKit }))
jest.mock('../../../../kit-view/MiniWave', () => ({ MiniWave: () => null }))
jest.mock('../../../../audio/engine/sound', () => ({ hearClip: (...given: unknown[]) => mockHear(...(given as [])) }))
jest.mock('../../../../audio/import/import', () => ({
  importFiles: (_files: unknown, progress: (state: object) => void) => mockImport(progress),
  soundsOf: (done: { sound?: Source }[]) => done.flatMap(({ sound: one }) => (one ? [one] : [])),
}))
jest.mock('../../../../ui/device/choose-files', () => ({ chooseFiles: async () => [new File([], 'x.wav')] }))
jest.mock('../../../../ui/layout/LongList', () => ({
  LongList: ({ items, draw, empty }: { items: { id: string }[]; draw: (item: object) => React.ReactNode; empty: React.ReactNode }) =>
    items.length === 0 ? empty : items.map((item) => <div key={item.id}>{draw(item)}</div>),
}))
jest.mock('../../../place', () => ({
  ...jest.requireActual<object>('../../../place/place-files'),
  ...jest.requireActual<object>('../../../place/BandCount'),
  useLoudness: () => new Map(),
}))

const { sources } = jest.requireMock<{ sources: { store: { setState(state: object): void } } }>('../../../../documents')
let mockKit: Kit
const closed = jest.fn()
const placed = jest.fn()

function Shown({ isCell = false }: { readonly isCell?: boolean }) {
  const [kit, setKit] = useState(mockKit)
  mockKit = kit
  mockEdit = (edits) => setKit((now) => (mockKit = after(now, edits)))
  const pad = kit.pads[0]!
  const turnId = isCell ? pad.bands[0]!.turns[0]!.id : undefined
  return <FillSheet kit={kit} pad={pad} cells={cellsOf(pad, pad.rays[0]!.id)!} turnId={turnId} onClose={closed} onShown={jest.fn()} onPlace={placed} /> // prettier-ignore
}
const names = () => screen.queryAllByRole('checkbox').map((row) => row.getAttribute('aria-label'))
const pick = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }))
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const filesOn = () => clipsOfPad(mockKit.pads[0]!).map(({ audio }) => audio[0])

beforeEach(() => {
  jest.clearAllMocks()
  sources.store.setState({ entries: Object.fromEntries(sounds.map((doc) => [doc.id, { doc }])) })
  mockKit = aKitOf({ ...aPad(2), own: { name: 'Cleat' } })
  gathered.setState({ ofKit: { [mockKit.id]: [sounds[1]!.id] } })
})

test('it opens on the sounds of this kit; all others are a tap away, and words look among all', () => {
  render(<Shown />)
  expect(names()).toEqual(['cleat 10'])
  choose('All 3')
  expect(names()).toEqual(['anchor drop', 'cleat 2', 'cleat 10'])
  expect(screen.getByText('1.00 s, -18 LUFS, wood')).toBeTruthy()
  choose('This kit 1')
  fireEvent.change(screen.getByLabelText('Find by name'), { target: { value: 'anchor' } })
  expect(names()).toEqual(['anchor drop'])
  press('Hear anchor drop')
  expect(mockHear).toHaveBeenCalledTimes(1)
})

test('a kit without sounds of its own is offered all of them', () => {
  gathered.setState({ ofKit: {} })
  render(<Shown />)
  expect(names()).toHaveLength(3)
  choose('This kit 0')
  expect(screen.getByText(/^This kit has no sounds of its own yet/)).toBeTruthy()
})

test('files are picked in an order, laid out as bands, as many as are wanted, and put on the pad in one step', () => {
  render(<Shown />)
  choose('All 3')
  for (const name of ['cleat 10', 'anchor drop', 'cleat 2']) pick(name)
  choose('As bands, in order')
  const bands = screen.getByRole('slider', { name: /^Bands/ })
  expect([bands.getAttribute('aria-valuenow'), bands.getAttribute('aria-valuemax')]).toEqual(['3', '3'])
  fireEvent.keyDown(bands, { key: 'ArrowLeft' })
  press('Put 3 on the pad')
  expect(mockKit.pads[0]!.bands.map(({ turns }) => turns.length)).toEqual([2, 1])
  expect(filesOn()).toEqual(['d', 'e', 'c'])
  expect(closed).toHaveBeenCalledTimes(1)
})

test('what is imported here is picked at once; one cell takes one file', async () => {
  mockImport = (progress) => {
    progress({ state: 'running', done: [] })
    progress({ state: 'finished', done: [{ type: 'taken', sound: sounds[2] }] })
  }
  const { unmount } = render(<Shown />)
  await act(async () => press('Import files'))
  press('Put 1 on the pad')
  expect(filesOn()).toEqual(['e'])
  unmount()
  render(<Shown isCell />)
  choose('All 3')
  pick('cleat 2')
  pick('cleat 10')
  expect(screen.getAllByRole('checkbox', { checked: true })).toHaveLength(1)
  press('Put it into the cell')
  expect(filesOn()).toEqual(['d'])
})
