import { padSettings, responseTo } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { after, aKitOf, aPad } from '../../../testing/a-kit'
import { reversedOf, reverseEdits } from '../quick/reverse'
import { firstWhom, keepGroup } from './group'
import { isSet, targetOf } from './target'
import { responsesOfAll } from './responses-of-all'
import type { Whom } from './target'
import { WhomChips } from './WhomChips'

const padOf = (id: string, name: string) => ({ ...aPad(1), id: id as PadId, own: { name } })
const kit = aKitOf(padOf('oar', 'Oar'), padOf('buoy', 'Buoy'), padOf('chain', 'Chain'))
let whom: Whom

function Shown({ of = kit }: { readonly of?: Kit }) {
  const [now, setNow] = useState<Whom>({ kind: 'pad' })
  whom = now
  return <WhomChips kit={of} pad={of.pads[0]!} whom={now} onWhom={setNow} />
}

test('several pads are chosen to be shaped with this one, which is always among them', () => {
  render(<Shown />)
  fireEvent.click(screen.getByRole('radio', { name: 'Several pads' }))
  const sheet = within(screen.getByRole('dialog'))
  expect(sheet.getByRole('button', { name: 'Choose others too' }).getAttribute('aria-disabled')).toBe('true')
  fireEvent.click(sheet.getByRole('checkbox', { name: 'Oar' }))
  fireEvent.click(sheet.getByRole('checkbox', { name: 'Chain' }))
  fireEvent.click(sheet.getByRole('button', { name: 'Shape these 2' }))
  expect(whom).toEqual({ kind: 'pads', padIds: ['oar', 'chain'] })
  fireEvent.click(screen.getByRole('radio', { name: 'All of Oar' }))
  expect(whom).toEqual({ kind: 'pad' })
})

test('what is set on several is set on each and on no other, and goes back on each', () => {
  const several: Whom = { kind: 'pads', padIds: ['oar', 'chain'] as PadId[] }
  const target = targetOf(kit, kit.pads[0]!, several)
  const changed = after(
    kit,
    target.edits({ values: { driveDb: 9 }, envelopes: { pitch: { points: [{ seconds: 0, value: 1, bend: 0 }] } } }),
  )
  expect(changed.pads.map((pad) => padSettings(changed, pad).values.driveDb)).toEqual([9, 0, 9])
  const back = after(changed, targetOf(changed, changed.pads[0]!, several).back(['driveDb', 'pitch']))
  expect(back.pads.map((pad) => isSet(targetOf(back, pad, { kind: 'pad' }), ['driveDb', 'pitch']))).toEqual([false, false, false])
  const turned = after(kit, reverseEdits(target.pads, several, true))
  expect(turned.pads.map((pad) => reversedOf([pad], { kind: 'pad' }))).toEqual(['all', 'none', 'all'])
})

test('what answers on one of several is set on each of them, beside what else answers there', () => {
  const [velocity, wheel] = [responseTo('velocity', 'gainDb', 12), responseTo('wheel', 'pan', 0.5)]
  const before = after(kit, [{ type: 'setPad', padId: 'chain' as PadId, own: { responses: [wheel] } }])
  const [oar, , chain] = before.pads
  const own = { responses: [velocity] }
  const changed = after(before, responsesOfAll(before, oar!, [oar!, chain!], [{ type: 'setPad', padId: oar!.id, own }]))
  expect(changed.pads.map((pad) => pad.own.responses)).toEqual([[velocity], undefined, [wheel, velocity]])
})

test('they stay together while one of them is struck, and no longer', () => {
  const several: Whom = { kind: 'pads', padIds: ['oar', 'chain'] as PadId[] }
  keepGroup(several)
  expect([firstWhom('chain' as PadId), firstWhom('buoy' as PadId)]).toEqual([several, { kind: 'pad' }])
  keepGroup({ kind: 'pad' })
  expect(firstWhom('chain' as PadId)).toEqual({ kind: 'pad' })
})

test('a kit of one pad with one hit has nobody else to touch', () => {
  const { container } = render(<Shown of={aKitOf(aPad(1))} />)
  expect(container.textContent).toBe('')
})
