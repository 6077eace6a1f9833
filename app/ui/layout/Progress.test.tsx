import { render, screen } from '@testing-library/react'

import { Progress } from './Progress'

test.each([[0, '0'], [0.255, '26'], [1, '100']])('a share of %d is said as %s of 100, with what it is of', (share, said) => {
  render(<Progress label="Files read" share={share} />)
  const line = screen.getByRole('progressbar', { name: 'Files read' })
  expect(['aria-valuemin', 'aria-valuenow', 'aria-valuemax'].map((name) => line.getAttribute(name))).toEqual(['0', said, '100'])
}) // prettier-ignore
