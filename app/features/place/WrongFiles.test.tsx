import { fireEvent, render, screen } from '@testing-library/react'

import { WrongFiles } from './WrongFiles'

const names = ['plank near 1', 'plank near 2', 'plank near 3']

test('what does not sound like its name is told with its reason, and one switch puts it right', () => {
  const right = jest.fn()
  const wrong = [
    { file: 0, kind: 'exchanged' as const, other: 1 },
    { file: 2, kind: 'otherThing' as const, other: 0 },
  ]
  const { rerender } = render(<WrongFiles wrong={wrong} names={names} isRighted={false} onRight={right} />)
  expect(screen.getByRole('alert').textContent).toContain('plank near 1: It seems exchanged with “plank near 2”')
  expect(screen.getByRole('alert').textContent).toContain('What was exchanged changes places. The one that belongs elsewhere is left out.')
  fireEvent.click(screen.getByRole('switch', { name: 'Go by the sound' }))
  expect(right).toHaveBeenCalledWith(true)
  rerender(<WrongFiles wrong={wrong} names={names} isRighted onRight={right} />)
  expect(screen.getByRole('alert').textContent).toContain('plank near 1: It seems exchanged')
  expect(screen.getByRole('alert').textContent).not.toContain('plank near 3: ') // it stands among the files without a place
  fireEvent.click(screen.getByRole('switch', { name: 'Go by the sound' }))
  expect(right).toHaveBeenLastCalledWith(false)
  rerender(<WrongFiles wrong={[]} names={names} isRighted={false} onRight={right} />)
  expect(screen.queryByRole('alert')).toBeNull()
})
