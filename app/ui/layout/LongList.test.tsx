import { act, fireEvent, render, screen } from '@testing-library/react'
import { createRef } from 'react'

import { LongList } from './LongList'
import type { LongListControls } from './LongList'
import { Text } from './Text'

const planks = Array.from({ length: 1000 }, (_, i) => `plank ${i}`)
const drawn = () => screen.getAllByText(/^plank/).map((one) => Number(one.textContent!.slice(6)))

beforeEach(() => {
  jest.spyOn(Element.prototype, 'scrollHeight', 'get').mockReturnValue(50_000)
  jest.spyOn(Element.prototype, 'clientHeight', 'get').mockReturnValue(300)
  jest.spyOn(Element.prototype, 'clientWidth', 'get').mockReturnValue(300)
})

function show(items: readonly string[]) {
  const ref = createRef<LongListControls>()
  render(
    <LongList ref={ref} label="Planks" items={items} rowHeight={50} keyOf={(one) => one} draw={(one) => <Text>{one}</Text>} empty={<Text>No planks</Text>} />, // prettier-ignore
  )
  return { ref, list: screen.getByRole('group', { name: 'Planks' }) }
}

test('of a thousand rows those in sight are drawn, and others as they are scrolled to', () => {
  const { list } = show(planks)
  expect(drawn()[0]).toBe(0)
  expect(drawn().at(-1)).toBeLessThan(20)
  list.scrollTop = 20_000
  act(() => void fireEvent.scroll(list))
  expect(drawn()).toContain(402)
  expect(drawn()).not.toContain(0)
})

test('a row is brought into sight by its place', () => {
  const { ref, list } = show(planks)
  const scrollTo = jest.fn()
  list.scrollTo = scrollTo as never
  act(() => ref.current!.show(900))
  expect((scrollTo.mock.calls[0] as [{ top: number }])[0].top).toBe(901 * 50 - 300)
})

test('where there is nothing, it says so', () => {
  show([])
  expect(screen.getByText('No planks')).toBeTruthy()
})
