import { render } from '@testing-library/react'

import { ringEdges, Star } from './Star'

const paths = (of: HTMLElement) => [...of.querySelectorAll('path')]
/** How many outlines the paths of a star draw. */
const outlines = (of: HTMLElement) => paths(of).map((one) => one.getAttribute('d')!.split('M').length - 1)

test('rings lie side by side from a small open centre to the rim, as many as there are bands', () => {
  for (const bands of [1, 2, 5, 16]) {
    const edges = ringEdges(bands)
    expect(edges).toHaveLength(bands + 1)
    expect(edges[0]).toBeGreaterThan(0)
    expect(edges[bands]).toBeCloseTo(1)
    edges.slice(1).forEach((edge, i) => expect(edge).toBeGreaterThan(edges[i]))
  }
})

test('a large star has a part for each cell, the one that sounded lit; a small one tells arms at its rim only', () => {
  const { container, rerender } = render(<Star turns={[2, 4]} size={80} lit={{ band: 1, turn: 2 }} />)
  expect(outlines(container)).toEqual([2, 3, 1])
  const [, ring, lit] = paths(container)
  expect(lit.getAttribute('fill')).not.toBe(ring.getAttribute('fill'))
  const litAt = lit.getAttribute('d')
  rerender(<Star turns={[2, 4]} size={80} />)
  expect(outlines(container)).toEqual([2, 4])
  expect(paths(container)[1].getAttribute('d')).toContain(litAt)
  rerender(<Star turns={[2, 4]} size={24} />)
  expect(outlines(container)).toEqual([2, 4]) // the two circles of the inner ring
  expect(paths(container)[0].getAttribute('d')).not.toContain('L')
})

test('a ring of one cell that sounds is lit as a whole, and what is lit elsewhere lights nothing', () => {
  const { container, rerender } = render(<Star turns={[1]} size={80} lit={{ band: 0, turn: 0 }} />)
  expect(paths(container)).toHaveLength(1)
  const lit = paths(container)[0].getAttribute('fill')
  rerender(<Star turns={[1]} size={80} lit={{ band: 0, turn: 5 }} />)
  expect(paths(container)).toHaveLength(1)
  expect(paths(container)[0].getAttribute('fill')).not.toBe(lit)
})

test('a ring of many cells is one path', () => {
  const { container } = render(<Star turns={[16, 128]} size={150} />)
  expect(outlines(container)).toEqual([16, 128])
})

test('a pad without clips is a broken circle', () => {
  const { container } = render(<Star turns={[0]} size={60} />)
  expect(paths(container)).toHaveLength(0)
  expect(container.querySelector('circle[stroke-dasharray], circle[strokeDasharray]')).toBeTruthy()
})
