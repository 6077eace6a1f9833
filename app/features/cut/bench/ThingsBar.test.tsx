import { createPad } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'

import { ThingsBar } from './ThingsBar'
import { thingWords } from './use-things'

const hits = [0, 1, 2, 3].map((i) => ({ marker: { id: `m${i}`, frame: 48000 * (i + 1) } })) as never
const pads = [0, 1].map((i) => createPad(testIds(i), {}, 40 + i))

test('things are shown with the times they were struck, heard one after another, and their number can be changed', () => {
  const change = jest.fn()
  const heard: { readonly marker: { readonly id: string } }[] = []
  const things = { groups: [[0, 2, 3], [1]], change: (by: number) => (by < 0 ? undefined : () => change(by) as undefined) }
  render(<ThingsBar hits={hits} rate={48000} things={things} pads={pads} onHear={(item) => heard.push(item)} />)
  expect(screen.getByRole('status').textContent).toBe('2 things were struck; 1 of them several times.')
  expect(screen.getByText('at 1.0, 3.0, 4.0 s')).toBeTruthy()
  const hear = screen.getByRole('button', { name: 'Hear what was struck at 1.0 s' })
  for (let n = 0; n < 4; n++) fireEvent.click(hear)
  expect(heard.map(({ marker }) => marker.id)).toEqual(['m0', 'm2', 'm3', 'm0'])
  expect(screen.getByRole('button', { name: 'One thing less' }).getAttribute('aria-disabled')).toBe('true')
  fireEvent.click(screen.getByRole('button', { name: 'One more' }))
  expect(change).toHaveBeenCalledWith(1)
})

test('while hits are compared, or are too many, that is said', () => {
  const { rerender } = render(<ThingsBar hits={hits} rate={48000} things={undefined} pads={[]} onHear={jest.fn()} />)
  expect(screen.getByRole('status').textContent).toBe('The hits are being compared.')
  rerender(<ThingsBar hits={new Array(2001).fill(0) as never} rate={48000} things={undefined} pads={[]} onHear={jest.fn()} />)
  expect(screen.getByRole('status').textContent).toMatch(/^More than 2000 hits are not compared/)
})

test('what was struck is said in a sentence', () => {
  expect(
    thingWords([
      [0, 1],
      [2, 3],
    ]),
  ).toBe('2 things were struck, each several times.')
  expect(thingWords([[0, 1], [2], [3, 4, 5]])).toBe('3 things were struck; 2 of them several times.')
  expect(thingWords([[0], [1]])).toBe('2 things were struck, each once.')
  expect(thingWords([[0, 1]])).toBe('One thing was struck, several times.')
})
