import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { aKitOf, aPad } from '../../testing/a-kit'
import { BeginPad } from './BeginPad'
import { begunPads } from './begun-pads'

let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn((_pad: Pad) => undefined)
jest.mock('../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: Pad) => pad.own.name }))
jest.mock('../../audio/engine/sound', () => ({ hearVersion: (pad: Pad) => mockHear(pad) }))
jest.mock('../../ui/layout/notices', () => ({ notify: () => undefined }))
const mockStarts = [{ id: 'start-a', name: 'Muffled', pad: { values: { gainDb: -9 }, pick: 'random' }, tillers: [] }]
jest.mock('./use-starts', () => ({ useStarts: () => mockStarts }))

const named = (name: string, own: object) => {
  const pad = aPad(1)
  return { ...pad, own: { ...pad.own, name, ...own } }
}
const [hull, bell] = [named('Hull', { family: 'kick', mode: 'hold', maxStrikes: 3 }), named('Bell', { family: 'bell', values: { pan: 0.5 }, pick: 'cycle' })] // prettier-ignore
let kit: Kit

function Shown() {
  const [doc, setDoc] = useState<Kit>(() => aKitOf(hull, bell))
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <BeginPad kit={doc} pad={doc.pads[0]!} />
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const settings = () => padSettings(kit, kit.pads[0]!)

beforeEach(() => {
  jest.clearAllMocks()
  render(<Shown />)
  press('Begin with a start')
})

test('a kept start is heard before it is taken; then all of the pad is as the start says but name and family', () => {
  expect(screen.getByRole('button', { name: 'Choose a start' }).getAttribute('aria-disabled')).toBe('true')
  fireEvent.click(screen.getByRole('radio', { name: 'Muffled' }))
  expect(mockHear.mock.lastCall![0].own).toMatchObject({ name: 'Hull', values: { gainDb: -9 } })
  expect(settings().mode).toBe('hold') // nothing is changed yet
  press('Hear it as it is')
  expect(mockHear.mock.lastCall![0].own.mode).toBe('hold')
  press('Begin with Muffled')
  expect([settings().name, settings().family, settings().values.gainDb, settings().pick, settings().mode]).toEqual(['Hull', 'kick', -9, 'random', 'oneShot']) // prettier-ignore
  expect(kit.pads[0]!.bands).toBe(hull.bands)
})

test('a finished pad is a start too', () => {
  fireEvent.click(screen.getByRole('radio', { name: 'Bell' }))
  press('Begin with Bell')
  expect([settings().name, settings().family, settings().values.pan, settings().maxStrikes]).toEqual(['Hull', 'kick', 0.5, padSettings(kit, kit.pads[1]!).maxStrikes]) // prettier-ignore
})

test('new pads begin with a start, keep what it does not say, and stay as they are without one', () => {
  const of = aKitOf(hull, bell)
  expect(begunPads(of, [hull], undefined)).toEqual({ pads: [hull], edits: [] })
  const { pads } = begunPads(of, [hull], mockStarts[0] as never)
  expect(pads[0]!.own).toMatchObject({ name: 'Hull', mode: 'hold', pick: 'random', values: { gainDb: -9 } })
})
