import { applyEdit, createKit, createPad } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { LinkChips } from './LinkChips'

let mockEdit: (edits: KitEdit[]) => void
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))

const makeId = testIds(8)
const names = ['Hatch tick', 'Bilge hiss', 'Keel drop']
const pads = names.map((name, i) => createPad(makeId, { name }, 36 + i))
let kit: Kit

function Shown() {
  const [doc, setDoc] = useState<Kit>({ ...createKit(makeId, 'Links'), pads })
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <LinkChips kit={doc} pad={doc.pads[0]} />
}
const tap = (group: string, name: string) =>
  fireEvent.click(within(screen.getByRole('group', { name: group })).getByRole('checkbox', { name: new RegExp(name) }))
const set = (place = 0) => fireEvent.click(screen.getAllByRole('button', { name: 'Set it' })[place]!)
const right = (name: string) => fireEvent.keyDown(screen.getByRole('slider', { name }), { key: 'ArrowRight' })

test('pads are struck along at a level, a delay and a chance, passed on where that is wished, and no more', () => {
  render(<Shown />)
  tap('Strikes along', 'Keel drop')
  tap('Strikes along', 'Bilge hiss')
  expect(screen.getByText('A strike on Hatch tick strikes Keel drop and Bilge hiss along; it is not passed on.')).toBeTruthy()
  set()
  right('Level of Keel drop')
  right('Delay of Bilge hiss')
  fireEvent.click(screen.getByRole('switch', { name: 'They strike on' }))
  expect(kit.ties).toEqual([expect.objectContaining({ kind: 'alsoStrike', from: pads[0].id, passOn: true })])
  const [tie] = kit.ties
  expect(tie.kind === 'alsoStrike' && tie.to.map(({ pad, gainDb, delaySeconds }) => [pad, gainDb, delaySeconds > 0])).toEqual([[pads[2].id, 0.1, false], [pads[1].id, 0, true]]) // prettier-ignore
  tap('Strikes along', 'Keel drop')
  tap('Strikes along', 'Bilge hiss')
  expect(kit.ties).toEqual([])
})

test('pads take turns, and open by a controller at thresholds that lie evenly; each says what it does', () => {
  render(<Shown />)
  tap('Takes turns with', 'Bilge hiss')
  expect(screen.getByText('A strike on any of Hatch tick and Bilge hiss sounds the next of them, the first one first.')).toBeTruthy()
  tap('Opens by a controller to', 'Keel drop')
  tap('Opens by a controller to', 'Bilge hiss')
  expect(screen.getByText(/^Controller 4 opens Hatch tick from 0, Keel drop from 43 and Bilge hiss from 85;/)).toBeTruthy()
  set(1)
  right('Controller')
  right('At or below this it silences the others')
  expect(kit.ties[1]).toMatchObject({ kind: 'openings', controller: 5, chokeAt: 1 })
  tap('Takes turns with', 'Bilge hiss')
  tap('Opens by a controller to', 'Keel drop')
  tap('Opens by a controller to', 'Bilge hiss')
  expect(kit.ties).toEqual([])
})
