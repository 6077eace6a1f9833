import { render } from '@testing-library/react'

import { ringEdges, Star } from './Star'

const cells = (of: HTMLElement) => of.querySelectorAll('path')

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
  expect(cells(container)).toHaveLength(6)
  const fills = [...cells(container)].map((one) => one.getAttribute('fill'))
  expect(fills.filter((fill) => fill === fills[4])).toHaveLength(1)
  rerender(<Star turns={[2, 4]} size={24} />)
  expect(cells(container)).toHaveLength(5)
})

test('a pad without clips is a broken circle', () => {
  const { container } = render(<Star turns={[0]} size={60} />)
  expect(cells(container)).toHaveLength(0)
  expect(container.querySelector('circle[stroke-dasharray], circle[strokeDasharray]')).toBeTruthy()
})
