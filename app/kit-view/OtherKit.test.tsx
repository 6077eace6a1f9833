import { createKit } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../documents/make-id'
import { OtherKit, useOtherKit } from './OtherKit'

let mockOthers: { readonly id: string; readonly name: string; readonly isHere?: boolean; readonly changedAt?: number }[] = []
jest.mock('./use-other-kits', () => ({
  useOtherKits: () => mockOthers.map(({ id, name, changedAt }) => ({ value: id, text: name, changedAt })),
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

test('of many those that changed last are offered, any other is found by its name, and what is chosen stays in sight', () => {
  mockOthers = Array.from({ length: 60 }, (_, i) => ({ id: `k${i}`, name: `Slip ${String(i).padStart(2, '0')}`, isHere: true, changedAt: i === 3 ? 999 : i }))
  render(<Shown />)
  const names = () => screen.queryAllByRole('radio').map((radio) => radio.textContent)
  expect(names()).toEqual(['Slip 03', ...Array.from({ length: 11 }, (_, i) => `Slip ${49 + i}`)])
  expect([screen.getByText(/48 more/), screen.getByRole('radiogroup', { name: /changed last/ })]).toHaveLength(2)
  const find = (words: string) => fireEvent.change(screen.getByRole('textbox', { name: 'Find by name' }), { target: { value: words } })
  find(' 2 LIP 1')
  expect(names()).toEqual(['Slip 12', 'Slip 21'])
  fireEvent.click(screen.getByRole('radio', { name: 'Slip 21' }))
  find('none')
  expect([names(), screen.getByText(/No kit is called like “none”/)]).toEqual([[], expect.anything()])
  fireEvent.click(screen.getByRole('button', { name: 'Show all names' }))
  expect(names()).toHaveLength(13)
  expect(screen.getByRole('radio', { name: 'Slip 21' }).getAttribute('aria-checked')).toBe('true')
  expect(screen.getByText(/47 more/)).toBeTruthy()
}) // prettier-ignore
