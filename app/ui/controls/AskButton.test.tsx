import { fireEvent, render, screen } from '@testing-library/react'

import { AskButton } from './AskButton'

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

test('what loses nothing is done at once; what would lose something says so first, and can be left', () => {
  const done = jest.fn()
  const { rerender } = render(<AskButton label="Merge" confirm="Merge all the same" onPress={done} />)
  press('Merge')
  expect(done).toHaveBeenCalledTimes(1)
  rerender(<AskButton label="Merge" warning="The last 3 would be left out." confirm="Merge all the same" onPress={done} />)
  press('Merge')
  expect(done).toHaveBeenCalledTimes(1)
  expect(screen.getByRole('alertdialog').textContent).toContain('The last 3 would be left out.')
  press('Leave it as it is')
  expect(screen.queryByRole('alertdialog')).toBeNull()
  press('Merge')
  press('Merge all the same')
  expect(done).toHaveBeenCalledTimes(2)
})
