import { createKit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'

import { KitMenu } from './KitMenu'

const mockActs = { rename: jest.fn(), duplicate: jest.fn(), remove: jest.fn() }
jest.mock('./kit-actions', () => ({
  renameKit: (...given: unknown[]) => mockActs.rename(...given) as unknown,
  duplicateKit: (...given: unknown[]) => mockActs.duplicate(...given) as unknown,
  deleteKit: (...given: unknown[]) => mockActs.remove(...given) as unknown,
}))

const kit = createKit(testIds(1), 'Slipway')

test('a kit is renamed, doubled or deleted, and what leaves it closes the sheet', () => {
  const close = jest.fn()
  render(<KitMenu kit={kit} onClose={close} />)
  const name = screen.getByRole('textbox', { name: 'Name' })
  fireEvent.change(name, { target: { value: 'Boathouse' } })
  fireEvent.blur(name)
  expect(mockActs.rename).toHaveBeenCalledWith(kit, 'Boathouse')
  expect(close).not.toHaveBeenCalled()
  fireEvent.click(screen.getByRole('button', { name: 'Duplicate' }))
  expect(mockActs.duplicate).toHaveBeenCalledWith(kit)
  fireEvent.click(screen.getByRole('button', { name: 'Delete' }))
  expect(mockActs.remove).toHaveBeenCalledWith(kit)
  expect(close).toHaveBeenCalledTimes(2)
})

test('without a kit there is no sheet', () => {
  render(<KitMenu kit={undefined} onClose={() => undefined} />)
  expect(screen.queryByRole('dialog')).toBeNull()
})
