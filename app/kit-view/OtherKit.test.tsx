import { createKit } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../documents/make-id'
import { OtherKit, useOtherKit } from './OtherKit'

let mockOthers: { readonly id: string; readonly name: string; readonly isHere: boolean }[] = []
jest.mock('./use-other-kits', () => ({
  useOtherKits: () => mockOthers.map(({ id, name }) => ({ value: id, text: name })),
  useKitById: (id: string) => mockOthers.find((one) => one.id === id && one.isHere),
}))

const here = createKit(makeId, 'Low Tide')
const onChoose = jest.fn()
const chosen: (Kit | undefined)[] = []
function Shown() {
  const other = useOtherKit(here, onChoose)
  chosen.push(other.kit)
  return <OtherKit {...other} />
}
beforeEach(() => {
  chosen.length = 0
  onChoose.mockClear()
})

test('without another kit that is said, and a single one is chosen by itself', () => {
  mockOthers = []
  const { unmount } = render(<Shown />)
  expect(screen.queryByRole('radio')).toBeNull()
  expect(screen.getByText(/no other kit/)).toBeTruthy()
  unmount()
  mockOthers = [{ id: 'a', name: 'Slipway', isHere: true }]
  render(<Shown />)
  expect(screen.getByRole('radio', { name: 'Slipway' }).getAttribute('aria-checked')).toBe('true')
  expect(chosen.at(-1)).toMatchObject({ name: 'Slipway' })
  expect(onChoose).not.toHaveBeenCalled()
})

test('of several one is chosen, and one that only the server has is waited for', () => {
  mockOthers = [
    { id: 'a', name: 'Slipway', isHere: true },
    { id: 'b', name: 'Harbour', isHere: false },
  ]
  render(<Shown />)
  expect(chosen.at(-1)).toBeUndefined()
  fireEvent.click(screen.getByRole('radio', { name: 'Harbour' }))
  expect([onChoose.mock.calls.length, chosen.at(-1)]).toEqual([1, undefined])
  expect(screen.getByText(/on its way/)).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Slipway' }))
  expect(chosen.at(-1)).toMatchObject({ name: 'Slipway' })
  expect(screen.queryByText(/on its way/)).toBeNull()
})
