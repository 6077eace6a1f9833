import { fireEvent, render, screen } from '@testing-library/react'

import { aKitOf, aPad } from '../testing/a-kit'
import { GroupChoice, inGroup } from './GroupChoice'
import { session } from './session'

const pad = aPad(1)
const kit = aKitOf({ ...pad, own: { ...pad.own, group: 'Hull' } }, aPad(1))
const group = () => session.getState().newGroup
const chosen = () => screen.getAllByRole('radio').find((one) => one.getAttribute('aria-checked') === 'true')!.textContent
beforeEach(() => session.setState({ newGroup: undefined }))

test('a group of the kit, none, or a typed one; it stays chosen for what comes next', () => {
  const { unmount } = render(<GroupChoice kit={kit} label="Group" />)
  expect(screen.getAllByRole('radio').map((one) => one.textContent)).toEqual(['No group', 'Hull', 'Another …'])
  fireEvent.click(screen.getByRole('radio', { name: 'Hull' }))
  expect([group(), chosen()]).toEqual(['Hull', 'Hull'])
  fireEvent.click(screen.getByRole('radio', { name: 'Another …' }))
  const field = screen.getByRole('textbox', { name: 'Name of the group' })
  fireEvent.change(field, { target: { value: ' Deck ' } })
  fireEvent.blur(field)
  expect([group(), chosen()]).toEqual(['Deck', 'Deck'])
  unmount()
  render(<GroupChoice kit={kit} label="Group" />)
  expect(chosen()).toBe('Deck')
  fireEvent.click(screen.getByRole('radio', { name: 'No group' }))
  expect(group()).toBeUndefined()
})

test('new pads come into the group, pads of the kit stay in theirs', () => {
  const fresh = aPad(1)
  expect(inGroup(kit, [...kit.pads, fresh], 'Deck').map(({ own }) => own.group)).toEqual(['Hull', undefined, 'Deck'])
  expect(inGroup(kit, [fresh], undefined)).toEqual([fresh])
})
