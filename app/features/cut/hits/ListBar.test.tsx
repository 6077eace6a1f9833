import { fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { hitsOf } from '../../../testing/hits'
import { plainHitList } from './hit-list'
import type { HitListView } from './hit-list'
import { ListBar } from './ListBar'

const did = { onHearAll: jest.fn(), onNames: jest.fn(), onRepairs: jest.fn() }
const hits = hitsOf(3, (i) => (i === 0 ? { family: 'bell' as const } : i === 1 ? { warnings: ['clipped' as const] } : {}))
let view: HitListView

function Shown({ of = hits, isHearing = false }: { readonly of?: typeof hits; readonly isHearing?: boolean }) {
  const [now, setNow] = useState<HitListView>(plainHitList)
  view = now
  return <ListBar hits={of} view={now} onView={setNow} isHearing={isHearing} {...did} />
}
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (group: string, name: string) =>
  fireEvent.click(within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name }))

test('without hits there is nothing to hear, repair or name; with them each is one press', () => {
  const { unmount } = render(<Shown of={[]} />)
  for (const name of ['Hear all', 'Repair', 'Name hits'])
    expect(screen.getByRole('button', { name }).getAttribute('aria-disabled')).toBe('true')
  unmount()
  render(<Shown isHearing />)
  for (const name of ['Stop hearing', 'Repair', 'Name hits']) press(name)
  expect(Object.values(did).map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1])
})

test('what the list shows, and in what order, is chosen, said, and taken back in one press', () => {
  render(<Shown />)
  press('Order of the list: Time')
  choose('Sorted by', 'Loudness')
  choose('Show', 'Not judged')
  choose('Family', 'wood')
  fireEvent.click(screen.getByRole('switch', { name: 'High to low' }))
  expect(view).toMatchObject({ sort: 'loudness', only: 'open', family: 'wood', isReversed: true })
  const from = screen.getByRole('textbox', { name: /^Loudness from/ })
  fireEvent.change(from, { target: { value: '-39' } })
  fireEvent.blur(from)
  expect(view.from).toBe(-39)
  expect(screen.getByRole('button', { name: 'Order of the list: Loudness, some of them' })).toBeTruthy()
  choose('Sorted by', 'Length') // limits were of the loudness
  expect(view.from).toBeUndefined()
  press('Show all, by time')
  expect(view).toEqual(plainHitList)
})

test('only families and warnings that there are can be asked for', () => {
  render(<Shown />)
  press(/^Order of the list/)
  const options = (group: string) =>
    within(screen.getByRole('radiogroup', { name: group })).getAllByRole('radio').map((one) => one.getAttribute('aria-label'))
  expect(options('Family')).toEqual(['Any', 'bell', 'wood'])
  expect(options('Warning')).toHaveLength(2)
}) // prettier-ignore
