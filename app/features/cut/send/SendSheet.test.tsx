import { applyEdit, createSource } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen, within } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { aGroovyKit } from '../../../testing/a-groove'
import { aKitOf, aPad, audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { session } from '../../../kit-view/session'
import { SendSheet } from './SendSheet'

let mockKit: Kit
const mockEdit = jest.fn((_id: unknown, edits: KitEdit[]) => void (mockKit = edits.reduce(applyEdit, mockKit)))
const mockNavigate = jest.fn()
const mockGroove = jest.fn()
const mockNotify = jest.fn()
jest.mock('../../../kit-view', () => ({
  useKit: () => mockKit,
  useKitId: () => 'kit-1',
  editKit: (id: unknown, edits: KitEdit[]) => mockEdit(id, edits),
}))
jest.mock('../../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name }))
jest.mock('../../starts', () => ({ StartChips: () => null }))
jest.mock('../bench/use-things', () => ({ useThings: () => undefined }))
jest.mock('../../../audio/playing/groove-player', () => ({ chooseGroove: (id: unknown) => mockGroove(id) }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) }))
jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockNavigate(to) } }))

const close = jest.fn()
const source = createSource(makeId, audio, info, 'Walk')
const shown = (count: number, of = source) =>
  render(<SendSheet source={of} hits={hitsOf(count)} onHear={() => undefined} onClose={close} />)
const how = (name: string) => fireEvent.click(within(screen.getByRole('radiogroup', { name: 'How' })).getByRole('radio', { name }))
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  session.setState({ newGroup: undefined })
  mockKit = aKitOf(aPad(2))
})

test('new pads come into a chosen group', () => {
  shown(3)
  fireEvent.click(screen.getByRole('radio', { name: 'Another …' }))
  const field = screen.getByRole('textbox', { name: 'Name of the group' })
  fireEvent.change(field, { target: { value: 'Hull' } })
  fireEvent.blur(field)
  press('Send to the Board')
  expect(mockKit.pads.map(({ own }) => own.group)).toEqual([undefined, 'Hull', 'Hull', 'Hull'])
})

test('nothing moves before it is sent; then all of it is one step, it is said, and the Board opens', () => {
  shown(3)
  expect(screen.getByRole('dialog', { name: 'Send 3 hits to pads' })).toBeTruthy()
  how('One pad, as turns')
  how('Each its own pad')
  expect(mockEdit).not.toHaveBeenCalled()
  press('Send to the Board')
  expect(mockEdit).toHaveBeenCalledTimes(1)
  expect(mockKit.pads).toHaveLength(4)
  expect(mockNotify).toHaveBeenCalledWith('3 pads are on the Board.')
  expect([mockNavigate.mock.lastCall, close.mock.calls.length]).toEqual([['/kit/kit-1/board'], 1])
})

test('as turns of one pad, or by loudness in as many bands as are asked for', () => {
  const { unmount } = shown(6)
  how('One pad, as turns')
  press('Send to the Board')
  expect(mockKit.pads[1].bands.map(({ turns }) => turns.length)).toEqual([6])
  unmount()
  shown(6)
  how('One pad, by loudness')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Bands' }), { key: 'End' })
  press('Send to the Board')
  expect(mockKit.pads[2].bands).toHaveLength(6)
})

test('onto a pad that is there, and that its clips go is said before', () => {
  shown(2)
  how('One pad, as turns')
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Onto' })).getByRole('radio', { name: 'Oar' }))
  expect(screen.getByText('The clips of Oar are replaced; all its settings stay.')).toBeTruthy()
  press('Send to the Board')
  expect(mockKit.pads).toHaveLength(1)
  expect(mockNotify).toHaveBeenCalledWith('2 hits are on Oar.')
})

test('hits that find no place are counted before anything moves', () => {
  mockKit = aKitOf(...Array.from({ length: 126 }, () => aPad(0)))
  shown(5)
  expect(screen.getByText(/^A kit holds 128 pads: 3 hits find no place\./)).toBeTruthy()
})

test('slices on beats become a loop with its groove, and the kit takes its tempo where it has no other', () => {
  const onBeats = { ...source, cut: { ...source.cut, grid: { kind: 'beats' as const, tempoBpm: 93, firstSeconds: 0, beats: 0.5 } } }
  shown(4, onBeats)
  how('As a loop')
  expect(screen.getByRole('switch', { name: 'The kit takes the tempo of the loop, 93 BPM' })).toBeTruthy()
  press('Send, and open the groove')
  expect(mockKit.tempoBpm).toBe(93)
  expect(mockKit.grooves).toHaveLength(1)
  expect(mockGroove).toHaveBeenCalledWith(mockKit.grooves[0].id)
  expect(mockNavigate).toHaveBeenCalledWith('/kit/kit-1/groove')
})

test('a kit whose groove has a bead already keeps its tempo, unless it is asked for the other', () => {
  const groove = aGroovyKit().grooves[0]
  const bead = groove.strings.map((string) => ({ ...string, beads: string.beads.slice(0, 1) })).slice(0, 1)
  for (const [strings, own] of [[bead, false], [groove.strings.map((string) => ({ ...string, beads: [] })), true]] as const) {
    mockKit = { ...aKitOf(aPad(2)), grooves: [{ ...groove, strings }] }
    const { unmount } = shown(4, { ...source, cut: { ...source.cut, grid: { kind: 'beats', tempoBpm: 93, firstSeconds: 0, beats: 0.5 } } })
    how('As a loop')
    const takes = screen.getByRole<HTMLInputElement>('switch', { name: 'The kit takes the tempo of the loop, 93 BPM' })
    expect(takes.checked).toBe(own)
    unmount()
  }
}) // prettier-ignore

test('a recording that is not cut on beats is no loop', () => {
  shown(2)
  expect(within(screen.getByRole('radiogroup', { name: 'How' })).queryByRole('radio', { name: 'As a loop' })).toBeNull()
})
