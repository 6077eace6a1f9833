import { render, screen } from '@testing-library/react'

import { NamePreview } from './NamePreview'

const names = (count: number) => Array.from({ length: count }, (_, i) => ({ id: `${i}`, before: `old ${i}`, after: `new ${i}` }))

test('new names stand beside the old ones; of many the rest is counted', () => {
  const { rerender } = render(<NamePreview names={names(2)} />)
  expect(screen.getByRole('group', { name: 'The new names' }).textContent).toBe('old 0new 0old 1new 1')
  rerender(<NamePreview names={names(75)} />)
  expect(screen.getByText('new 59')).toBeTruthy()
  expect(screen.queryByText('new 60')).toBeNull()
  expect(screen.getByText('And 15 more.')).toBeTruthy()
})
