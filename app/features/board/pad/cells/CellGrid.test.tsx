import { applyEdit } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { asBands, cellsOf } from '@heliaster/core/place'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { aKitOf, aPad } from '../../../../testing/a-kit'
import { CellGrid } from './CellGrid'

let mockEdit: (edits: KitEdit[]) => void
jest.mock('../../../../kit-view', () => ({
  editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits),
  useSession: () => undefined,
}))
jest.mock('../../../../kit-view/use-kit', () => ({
  padGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
}))
jest.mock('../../../../audio/engine/sound', () => ({ hearClip: () => Promise.resolve(), hearTurn: () => undefined }))
jest.mock('../../../../audio/files/clip-look', () => ({ useClipLooks: () => () => undefined }))

let kit: Kit
const CELL = 50

/** Four bands of one turn each, soft at the bottom. */
function Shown() {
  const [doc, setDoc] = useState(() => aKitOf(aPad(4, asBands)))
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  const [pad] = doc.pads
  return <CellGrid kit={doc} pad={pad} cells={cellsOf(pad)!} onRecord={() => undefined} onFile={() => undefined} />
}
const levels = () =>
  kit.pads[0].bands.map(({ turns }) => Object.values(turns[0].clips).map((clip) => (clip === 'intendedSilence' ? 0 : clip.gainDb))[0])
const cell = (band: number) => screen.getByRole('button', { name: `Hear band ${band}, turn 1` })

function drag(fromY: number, toY: number) {
  const pointer = (type: string, y: number) =>
    fireEvent(
      screen.getByTestId('ground'),
      Object.assign(new MouseEvent(type, { bubbles: true, clientX: 60, clientY: y }), { pointerId: 1, pointerType: 'mouse' }),
    )
  pointer('pointerdown', fromY)
  pointer('pointermove', toY)
  pointer('pointerup', toY)
}

beforeEach(() => {
  Element.prototype.setPointerCapture = () => undefined
  // Band 4 lies on top; what is no cell is the ground, in the corner.
  jest.spyOn(Element.prototype, 'getBoundingClientRect').mockImplementation(function (this: Element) {
    const turn = this.getAttribute('data-turn')
    const place = turn ? kit.pads[0].bands.findIndex(({ turns }) => turns.some(({ id }) => id === turn)) : -1
    return { left: turn ? 48 : 0, top: turn ? (3 - place) * CELL : 0, width: CELL - 4, height: CELL - 4 } as DOMRect
  })
})
afterEach(() => jest.restoreAllMocks())

test('a drag over the ground marks the cells under it, and what is set then is for them alone', () => {
  render(<Shown />)
  drag(CELL + 2, 3 * CELL - 6)
  expect([1, 2, 3, 4].map((band) => cell(band).getAttribute('aria-pressed'))).toEqual(['false', 'true', 'true', 'false'])
  expect(screen.getByRole('radio', { name: 'These 2 cells' }).getAttribute('aria-checked')).toBe('true')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Level of this clip; 2 move with it' }), { key: 'ArrowRight' })
  expect(levels()).toEqual([0, 0.1, 0.1, 0])
  fireEvent.click(screen.getByRole('button', { name: 'Remove these 2 turns' }))
  expect(kit.pads[0].bands).toHaveLength(2)
  expect(levels()).toEqual([0, 0])
})

test('Shift and a tap mark one more or one less; a plain tap is about one again', () => {
  render(<Shown />)
  fireEvent.click(cell(1))
  fireEvent.click(cell(3), { shiftKey: true })
  fireEvent.click(cell(4), { shiftKey: true })
  expect(screen.getByRole('radio', { name: 'These 3 cells' })).toBeTruthy()
  fireEvent.click(cell(3), { shiftKey: true })
  expect(screen.getByRole('radio', { name: 'These 2 cells' })).toBeTruthy()
  fireEvent.click(cell(2))
  expect(screen.queryByRole('radio', { name: /^These/ })).toBeNull()
  expect(screen.getByRole('button', { name: 'Remove this turn' })).toBeTruthy()
})
