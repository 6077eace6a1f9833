import type { SourceId } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useRef, useState } from 'react'

import { DragTicks } from './DragTicks'

const order = ['a', 'b', 'c', 'd', 'e'] as SourceId[]
let chosen = ''

function Shown() {
  const [selection, select] = useState<ReadonlySet<SourceId>>(new Set(['d' as SourceId]))
  chosen = [...selection].sort().join('')
  return <DragTicks order={order} selection={selection} scroller={useRef(null)} onSelecting={(next) => select(next.chosen)} />
}
function pointer(type: string, y: number, pointerType = 'touch', shiftKey = false) {
  const event = new MouseEvent(type, { bubbles: true, clientX: 20, clientY: y, shiftKey })
  fireEvent(screen.getByTestId('ticks'), Object.assign(event, { pointerId: 1, pointerType }))
}
beforeEach(() => {
  Element.prototype.setPointerCapture = jest.fn()
  render(<Shown />)
})

test.each(['touch', 'mouse'])('a drag down the ticks (%s) ticks row after row, and back again lets them go', (type) => {
  pointer('pointerdown', 30, type)
  expect(chosen).toBe('ad')
  pointer('pointermove', 150, type)
  expect(chosen).toBe('abcd')
  pointer('pointermove', 100, type)
  expect(chosen).toBe('abd')
  pointer('pointerup', 100, type)
  pointer('pointermove', 250, type)
  expect(chosen).toBe('abd')
})

test('a drag that begins on a ticked row lets rows go; Shift is left to the row', () => {
  pointer('pointerdown', 200)
  pointer('pointermove', 290)
  pointer('pointerup', 290)
  expect(chosen).toBe('')
  pointer('pointerdown', 30, 'mouse', true)
  pointer('pointermove', 290, 'mouse', true)
  expect(chosen).toBe('')
})
