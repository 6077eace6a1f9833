import { clipsOfPad, createSource, padSettings } from '@heliaster/core/kit'
import type { AudioHash, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../documents/make-id'
import { after, aKitOf, aPad, info } from '../../testing/a-kit'
import { PlaceSheet } from './PlaceSheet'

let mockKit: Kit
let mockEdit: (edits: KitEdit[]) => void
const mockNotify = jest.fn()
jest.mock('expo-router', () => ({ router: { navigate: () => undefined } }))
jest.mock('../../kit-view', () => ({
  editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits),
  useKit: () => mockKit,
  useKitId: () => mockKit.id,
}))
jest.mock('../../kit-view/GroupChoice', () => ({ GroupChoice: () => null, inGroup: (_kit: unknown, pads: unknown) => pads }))
jest.mock('../../kit-view/PadGlyph', () => ({ PadGlyph: () => null }))
jest.mock('../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => true }))
jest.mock('../starts', () => ({ StartChips: () => null, begunPads: (_kit: unknown, pads: unknown) => ({ pads, edits: [] }) }))
jest.mock('./PlacePicture', () => ({ Stars: () => null, Gaps: () => null }))
jest.mock('./use-loudness', () => ({ useLoudness: () => new Map() }))
jest.mock('./use-likeness', () => ({ useLikeness: () => ({ likeness: undefined, isListening: false }) }))
jest.mock('./use-wrong-files', () => ({ useWrongFiles: () => [] }))

const filesOf = (names: readonly string[]) => names.map((name, i) => createSource(makeId, String(i).repeat(64) as AudioHash, info, name))
const files = filesOf(['Oar soft', 'Oar hard', 'Cleat soft', 'Cleat hard'])
const closed = jest.fn()
let edits = 0

function Shown({ onto }: { readonly onto?: Pad }) {
  const [kit, setKit] = useState(mockKit)
  mockKit = kit
  mockEdit = (made) => (edits++, setKit((now) => after(now, made)))
  return <PlaceSheet files={files} onto={onto} onClose={closed} />
}
function show(kit: Kit, onto?: Pad): void {
  mockKit = kit
  edits = 0
  render(<Shown onto={onto} />)
}
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const accept = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const firstDigits = (pad: Pad) => clipsOfPad(pad).map(({ audio }) => audio[0])

beforeEach(() => jest.clearAllMocks())

test('each file onto a pad of its own: one step, said in words, and the sheet closes', () => {
  show(aKitOf())
  choose('Own pads')
  accept('Put all 4 there')
  expect(mockKit.pads.map((pad) => padSettings(mockKit, pad).name)).toEqual(['Cleat hard', 'Cleat soft', 'Oar hard', 'Oar soft'])
  expect([edits, closed.mock.calls.length]).toEqual([1, 1])
  expect(mockNotify).toHaveBeenCalledWith('4 files are on 4 pads.')
})

test.each([
  ['By name', ['Oar soft', 'Oar hard', 'Cleat soft', 'Cleat hard', 'Bell']],
  ['By name', ['Oar 1', 'Oar 2', 'Bell', 'Cleat']],
  ['Own pads', ['Oar 1', 'Oar 2', 'Bell', 'Cleat', 'Keel']],
])('%s is offered first for %s', (way, names) => {
  mockKit = aKitOf()
  render(<PlaceSheet files={filesOf(names)} onClose={closed} />)
  expect(screen.getByRole('radio', { name: way, checked: true })).toBeTruthy()
})

test('by name they become two things of two strengths', () => {
  show(aKitOf())
  choose('By name')
  accept('Put all 4 there')
  expect(mockKit.pads.map((pad) => pad.bands.length)).toEqual([2, 2])
})

test('onto a pad they go in the place of its clips, or stay beside them where they are further turns', () => {
  const pad = aPad(2)
  show(aKitOf(pad), pad)
  choose('Turns')
  expect(screen.getByText(/are replaced; all its settings stay/)).toBeTruthy()
  choose('Stays, with these besides')
  expect(screen.queryByText(/are replaced; all its settings stay/)).toBeNull()
  accept('Put all 4 there')
  expect(mockKit.pads).toHaveLength(1)
  expect(firstDigits(mockKit.pads[0]!)).toEqual(['b', 'b', '3', '2', '1', '0'])
})

test('onto a pad whose names speak of more pads it is said which of them goes', () => {
  const pad = aPad(1)
  show(aKitOf(pad), pad)
  choose('By name')
  expect(screen.getByText(/speak of 2 pads; only Cleat goes onto this one/)).toBeTruthy()
  accept('Put 2 of 4 there')
  expect(firstDigits(mockKit.pads[0]!).sort()).toEqual(['2', '3'])
})

test('a ray that gets no clip from them is said to be silent then', () => {
  const pad = aPad(1)
  const second = { ...pad.rays[0]!, id: makeId('ray'), name: 'Room' }
  const [band] = pad.bands
  const [turn] = band!.turns
  const both = { ...pad, rays: [...pad.rays, second], bands: [{ ...band!, turns: [{ ...turn!, clips: { ...turn!.clips, [second.id]: turn!.clips[pad.rays[0]!.id]! } }] }] } // prettier-ignore
  show(aKitOf(both as Pad), both as Pad)
  choose('Turns')
  expect(screen.getByText(/Room gets no clip from these and is silent then/)).toBeTruthy()
})
