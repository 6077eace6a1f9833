import { applyEdit, createKit, createPad, movedParameters, parameterRow, responseTo, valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { TARGETS } from './mover-words'
import { Movers } from './Movers'

const makeId = testIds(6)
const pad = createPad(makeId, { responses: [responseTo('velocity', 'gainDb', 24)] }, 36)
let kit: Kit

function Shown() {
  const [doc, setDoc] = useState<Kit>({ ...createKit(makeId, 'Shape'), pads: [pad] })
  kit = doc
  const edit = (edits: KitEdit[]) => setDoc((now) => edits.reduce(applyEdit, now))
  return <Movers kit={doc} pad={doc.pads[0]} onSlide={edit} onDone={() => undefined} />
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const responses = () => kit.pads[0].own.responses ?? []

test('everything that the engine lets a response move is offered, within the range that the table gives it', () => {
  expect(TARGETS.map(({ value }) => value).sort()).toEqual([...movedParameters].sort())
  for (const { value, most, factor } of TARGETS) {
    const { min, max, movedBy } = parameterRow(value)
    expect(most / factor).toBeGreaterThan(0)
    if (movedBy === undefined) expect(most / factor).toBeLessThanOrEqual(max - min)
  }
})

test('what moves a pad is said in words, moved by a slider and taken away', () => {
  render(<Shown />)
  const slider = screen.getByRole('slider', { name: 'Softer strikes move the level' })
  fireEvent.keyDown(slider, { key: 'ArrowRight' })
  expect(responses()[0].amount).toBeGreaterThan(24)
  press('Softer strikes move the level: no more')
  expect(responses()).toEqual([])
  expect(screen.getByText('Nothing: every strike is alike.')).toBeTruthy()
})

test('a wheel, a controller by its number and a slow wave of the kit are added to what they move', () => {
  render(<Shown />)
  press('Let something move it')
  choose('Controller')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Number of the controller' }), { key: 'ArrowRight' })
  choose('Cutoff')
  press('Add')
  expect(responses()[1]).toMatchObject({ from: { kind: 'controller', number: 5 }, to: [{ param: 'filter1CutoffHz' }], amount: 1800 })
  press('Let something move it')
  choose('A slow wave')
  choose('Place')
  press('Add')
  expect(kit.oscillators).toHaveLength(1)
  expect(responses()[2]).toMatchObject({ from: { kind: 'oscillator', id: kit.oscillators[0].id }, amount: 0.25 })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'The slow wave, times a second' }), { key: 'ArrowRight' })
  expect(kit.oscillators[0].rate.value).toBeGreaterThan(2)
  press('Let something move it')
  choose('A slow wave')
  choose('Place')
  press('Add')
  expect(new Set(responses().map(({ id }) => id)).size).toBe(4)
  expect(valueOf(kit, 'gainDb')).toBe(0)
})
