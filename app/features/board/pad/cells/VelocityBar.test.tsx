import type { Band } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { VelocityBar } from './VelocityBar'

const band = (id: string, fromVelocity: number) => ({ id, fromVelocity, blendVelocities: 0, blendLaw: 'power', values: {}, turns: [] }) as unknown as Band // prettier-ignore

function shown(...edges: number[]) {
  const acts = { onChoose: jest.fn(), onSlide: jest.fn(), onDone: jest.fn() }
  render(<VelocityBar bands={[1, ...edges].map((from, i) => band(`band${i}`, from))} chosen={undefined} {...acts} />)
  return acts
}

const edge = (n: number) => screen.getByRole('slider', { name: `Band ${n} begins at velocity` })

test('every edge but the first is a slider between its neighbours', () => {
  shown(40, 90)
  expect(screen.getAllByRole('slider')).toHaveLength(2)
  const bounds = ['aria-valuemin', 'aria-valuenow', 'aria-valuemax'].map((name) => edge(2).getAttribute(name))
  expect(bounds).toEqual(['2', '40', '89'])
  expect(edge(3).getAttribute('aria-valuemax')).toBe('127')
})

test('arrows move an edge by one velocity, each one step; it stops before the next band', () => {
  const { onSlide, onDone } = shown(40, 41)
  fireEvent.keyDown(edge(2), { key: 'ArrowLeft' })
  expect(onSlide).toHaveBeenLastCalledWith('band1', 39)
  fireEvent.keyDown(edge(2), { key: 'ArrowRight' })
  expect(onSlide).toHaveBeenLastCalledWith('band1', 40)
  expect(onDone).toHaveBeenCalledTimes(2)
  fireEvent.keyDown(edge(2), { key: 'a' })
  expect(onSlide).toHaveBeenCalledTimes(2)
})

test('one band alone has no edge', () => {
  shown()
  expect(screen.queryByRole('slider')).toBeNull()
})
