import { applyEdit, createKit, createPad } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { ChokeChips } from './ChokeChips'

let mockEdit: (edits: KitEdit[]) => void
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))

const makeId = testIds(9)
const pads = ['Bilge hiss', 'Hatch tick'].map((name, i) => createPad(makeId, { name }, 36 + i))
let kit: Kit

function Shown({ place = 0 }: { readonly place?: number }) {
  const [doc, setDoc] = useState<Kit>(() => kit ?? { ...createKit(makeId, 'Chokes'), pads })
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <ChokeChips kit={doc} pad={doc.pads[place]} />
}

const groups = () => kit.ties.flatMap((tie) => (tie.kind === 'chokeGroup' ? [tie] : []))
const choose = (name: string | RegExp) => fireEvent.click(screen.getByRole('radio', { name }))

test('a new group has one pad and says what it lacks; another pad joins it and both silence each other; none leaves it', () => {
  const first = render(<Shown />)
  choose('New group')
  expect(groups().map((group) => group.pads)).toEqual([[pads[0].id]])
  expect(screen.getByText(/^Alone in its group/)).toBeTruthy()
  expect(screen.queryByRole('radio', { name: 'New group' })).toBeNull() // it has one to itself
  first.unmount()

  const second = render(<Shown place={1} />)
  choose(new RegExp(`^${groups()[0].name}$`))
  expect(groups()[0].pads).toEqual(pads.map(({ id }) => id))
  expect(screen.getByText('Silences Bilge hiss.')).toBeTruthy()

  fireEvent.keyDown(screen.getByRole('slider', { name: 'Silences within' }), { key: 'End' })
  expect(groups()[0].fadeSeconds).toBe(10)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes at once in the group' }), { key: 'Home' })
  expect(groups()[0].maxStrikes).toBe(1)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes at once in the group' }), { key: 'End' })
  expect(groups()[0].maxStrikes).toBeUndefined()
  const name = screen.getByRole('textbox', { name: 'Name of the group' })
  fireEvent.change(name, { target: { value: 'Hats' } })
  fireEvent.blur(name)
  expect(groups()[0].name).toBe('Hats')
  choose('None')
  expect(groups()[0].pads).toEqual([pads[0].id])
  second.unmount()
})
