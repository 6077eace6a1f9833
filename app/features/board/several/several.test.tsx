import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { PadsSheet } from './PadsSheet'

let mockEdit: (edits: KitEdit[]) => void
const mockEnd = jest.fn()
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => mockEnd() }),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))

const named = (name: string, own: object = {}) => {
  const pad = aPad(2)
  return { ...pad, own: { ...pad.own, name, ...own } }
}
let kit: Kit
const steps = jest.fn()

function Shown({ of, onClose = () => undefined }: { readonly of: Kit; readonly onClose?: () => void }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => {
    steps(edits)
    setDoc((now) => edits.reduce(applyEdit, now))
  }
  return <PadsSheet kit={doc} onClose={onClose} />
}

const yard = () => aKitOf(named('Hull thump', { family: 'kick' }), named('Hatch tick', { mute: true }), named('Keel drop', { family: 'kick', maxStrikes: 4 })) // prettier-ignore
const tick = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }))
const rule = (name: string) => fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Choose' })).getByRole('radio', { name }))
const chosen = () =>
  screen.getAllByRole('checkbox').filter((one) => one.getAttribute('aria-checked') === 'true').map((one) => one.getAttribute('aria-label')) // prettier-ignore
const values = (key: 'maxStrikes' | 'pick' | 'family') => kit.pads.map((pad) => padSettings(kit, pad)[key])

beforeEach(() => jest.clearAllMocks())

test('pads are chosen one by one, all and none at once, and by what they share', () => {
  render(<Shown of={yard()} />)
  expect(screen.getByRole('dialog', { name: 'Edit several pads' })).toBeTruthy()
  expect(screen.queryByRole('slider')).toBeNull()
  tick('Hatch tick')
  tick('Keel drop')
  expect(screen.getByRole('dialog', { name: 'Edit 2 pads' })).toBeTruthy()
  tick('Keel drop')
  expect(chosen()).toEqual(['Hatch tick'])
  for (const [name, found] of [['kick', ['Hull thump', 'Keel drop']], ['Muted', ['Hatch tick']], ['All', ['Hull thump', 'Hatch tick', 'Keel drop']], ['None', []]] as const) {
    rule(name)
    expect([name, chosen()]).toEqual([name, found])
  }
}) // prettier-ignore

test('what differs among them is said to be mixed until it is set, and a setting is one step for all', () => {
  render(<Shown of={yard()} />)
  rule('All')
  expect(screen.getByRole('slider', { name: 'Strikes at once (mixed)' })).toBeTruthy()
  expect(screen.getByRole('slider', { name: 'Level' })).toBeTruthy()
  expect(screen.getByRole('radiogroup', { name: 'Family (mixed)' })).toBeTruthy()
  const before = steps.mock.calls.length
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Next turn' })).getByRole('radio', { name: 'Shuffle' }))
  expect(values('pick')).toEqual(['shuffle', 'shuffle', 'shuffle'])
  expect(steps.mock.calls.length - before).toBe(1)
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Family (mixed)' })).getByRole('radio', { name: 'wood' }))
  expect(values('family')).toEqual(['wood', 'wood', 'wood'])
  expect(screen.getByRole('radiogroup', { name: 'Family' })).toBeTruthy()
})

test('a drag on a slider moves all that are chosen and ends once; others stay', () => {
  render(<Shown of={yard()} />)
  tick('Hull thump')
  tick('Keel drop')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes at once (mixed)' }), { key: 'End' })
  expect(values('maxStrikes')).toEqual([32, values('maxStrikes')[1], 32])
  expect(values('maxStrikes')[1]).not.toBe(32)
  expect(mockEnd).toHaveBeenCalledTimes(1)
})

test('settings are taken from one pad, and pads are removed together', () => {
  render(<Shown of={yard()} />)
  tick('Hull thump')
  tick('Hatch tick')
  const from = screen.getByRole('radiogroup', { name: 'Take settings from' })
  fireEvent.click(within(from).getByRole('radio', { name: 'Keel drop' }))
  fireEvent.click(screen.getByRole('button', { name: /^Give these 2 the settings of Keel drop/ }))
  expect(values('maxStrikes')).toEqual([4, 4, 4])
  expect(kit.pads.map((pad) => pad.own.name)).toEqual(['Hull thump', 'Hatch tick', 'Keel drop']) // names are their own
  fireEvent.click(screen.getByRole('button', { name: 'Remove these 2 pads' }))
  expect(kit.pads.map((pad) => pad.own.name)).toEqual(['Keel drop'])
  expect(chosen()).toEqual([])
})

test('a kit of many pads is searched by name', () => {
  render(<Shown of={aKitOf(...Array.from({ length: 14 }, (_, i) => named(`Plank ${i + 1}`)))} />)
  fireEvent.change(screen.getByRole('textbox', { name: 'Find by name' }), { target: { value: 'plank 1' } })
  expect(chosen()).toEqual(['Plank 1', 'Plank 10', 'Plank 11', 'Plank 12', 'Plank 13', 'Plank 14'])
  fireEvent.click(screen.getByRole('button', { name: 'Show all names' }))
  expect(chosen()).toEqual([])
})

test('Escape closes it and changes nothing', () => {
  const close = jest.fn()
  render(<Shown of={yard()} onClose={close} />)
  fireEvent.keyDown(window, { key: 'Escape' })
  expect(close).toHaveBeenCalledTimes(1)
  expect(steps).not.toHaveBeenCalled()
})
