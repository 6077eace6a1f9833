import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import type { Kit, KitEdit } from '@heliaster/core/kit'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { layOut } from '../../../testing/lay-out'
import { PadTable } from './PadTable'

const mockStrike = jest.fn()
const mockEdit = jest.fn<void, [unknown, KitEdit[]]>()
const mockSizes: number[] = []
jest.mock('../../../kit-view', () => ({
  editKit: (id: unknown, edits: KitEdit[]) => mockEdit(id, edits),
  useSession: (select: (state: object) => unknown) => select({ sounding: [] }),
}))
jest.mock('../../../kit-view/PadFace', () => ({
  PadFace: ({ size }: { size: number }) => {
    mockSizes.push(size)
    return null
  },
}))
jest.mock('../../../audio/engine/sound', () => ({ strikePad: (strike: unknown) => mockStrike(strike) as unknown }))

const kit = { ...aKitOf(...['a', 'b', 'c', 'd', 'e'].map((id) => ({ ...aPad(1), id: id as never, own: { name: `Pad ${id}` } }))), arrangement: { columns: 2 } } // prettier-ignore
const choose = jest.fn()
const shown = (mode: 'play' | 'arrange' | 'tie' = 'play', of: Kit = kit) => {
  mockSizes.length = 0
  render(<PadTable kit={of} mode={mode} tieKind="choke" tieId={undefined} onChoose={choose} />)
  layOut(400, 600)
  return mockSizes.at(-1)!
}
function drag(from: readonly [number, number], to: readonly [number, number]) {
  for (const [type, [x, y]] of [['pointerdown', from], ['pointermove', to], ['pointerup', to]] as const) {
    const event = new MouseEvent(type, { bubbles: true, clientX: x, clientY: y })
    fireEvent(screen.getByTestId('ground'), Object.assign(event, { pointerId: 1, pointerType: 'mouse' }))
  }
} // prettier-ignore
beforeEach(() => {
  jest.clearAllMocks()
  Element.prototype.setPointerCapture = jest.fn()
})

test('a drag over empty ground chooses the pads that it goes over, and none where it goes over none', () => {
  shown()
  drag([0, 0], [399, 200])
  expect(choose.mock.calls).toEqual([[['a', 'b']]])
  drag([0, 0], [2, 590])
  expect(choose).toHaveBeenCalledTimes(1)
  drag([0, 590], [399, 0])
  expect(choose.mock.calls[1]).toEqual([['a', 'b', 'c', 'd', 'e']])
})

test('pads fill the height that there is, and never more than their column', () => {
  const few = shown('play', { ...kit, pads: kit.pads.slice(0, 2) })
  const all = shown()
  const many = shown('play', { ...kit, pads: Array.from({ length: 40 }, (_, i) => ({ ...kit.pads[0]!, id: `${i}` as never })) })
  expect(few).toBeGreaterThan(all)
  expect(all).toBeGreaterThan(many)
  expect(many).toBeGreaterThanOrEqual(96)
  expect(2 * few).toBeLessThan(400)
})

test('while pads are arranged each sounds as it is taken, and two change places', async () => {
  shown('arrange')
  const take = screen.getByRole('button', { name: 'Take up Pad a' })
  fireEvent.mouseDown(take, { buttons: 1 })
  await waitFor(() => expect(mockStrike).toHaveBeenCalledWith(expect.objectContaining({ padId: 'a' })))
  fireEvent.mouseUp(take)
  fireEvent.click(take)
  fireEvent.click(take) // tapped again it is let go
  expect(screen.queryByRole('button', { name: 'Swap with Pad c' })).toBeNull()
  fireEvent.click(take)
  fireEvent.click(screen.getByRole('button', { name: 'Swap with Pad c' }))
  expect(mockEdit.mock.calls[0]![1].length).toBeGreaterThan(0)
})
