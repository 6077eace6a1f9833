import { fireEvent, render, screen } from '@testing-library/react'

import { More } from './More'

const rename = jest.fn()
const remove = jest.fn()
const hear = jest.fn()

beforeEach(() => jest.clearAllMocks())
const press = (role: string, name: string) => fireEvent.click(screen.getByRole(role, { name }))
const open = () => {
  render(
    <More
      title="This pad"
      acts={[
        { label: 'Rename', icon: 'form-textbox', onPress: rename },
        { label: 'Remove', icon: 'delete-outline', onPress: remove, disabled: true },
        { label: 'Hear it again', icon: 'ear-hearing', onPress: hear, on: true },
      ]}
    />,
  )
  press('button', 'More')
}

test('what is behind it has words; doing one closes it', () => {
  open()
  expect(screen.getByRole('dialog', { name: 'This pad' })).toBeTruthy()
  press('button', 'Rename')
  expect(rename).toHaveBeenCalledTimes(1)
  expect(screen.queryByRole('dialog')).toBeNull()
})

test('what cannot be done is not; what is switched is seen to change', () => {
  open()
  press('button', 'Remove')
  expect(remove).not.toHaveBeenCalled()
  expect(screen.getByRole('switch', { name: 'Hear it again' }).getAttribute('aria-checked')).toBe('true')
  press('switch', 'Hear it again')
  expect([hear.mock.calls.length, screen.queryByRole('dialog') !== null]).toEqual([1, true])
})
