import { responseTo } from '@heliaster/core/kit'
import type { TieId } from '@heliaster/core/kit'
import { cellsOf, proposeLevel } from '@heliaster/core/place'
import { inChokeGroup } from '@heliaster/core/ties'

import { makeId } from '../../../documents/make-id'
import { aKitOf, aPad, after } from '../../../testing/a-kit'
import { duplicateEdits, spreadEdits } from './pad-edits'

test('turns spread to bands and back lose no clip, and velocity’s share shrinks as bands grow', () => {
  const kit = aKitOf(aPad(5))
  const spread = after(kit, spreadEdits(kit.pads[0], cellsOf(kit.pads[0])!, 'bands'))
  expect(spread.pads[0].bands).toHaveLength(5)
  expect(spread.pads[0].own.responses![0].amount).toBe(6)
  expect(after(spread, spreadEdits(spread.pads[0], cellsOf(spread.pads[0])!, 'turns')).pads[0].bands[0].turns).toHaveLength(5)
  const set = { ...kit.pads[0], own: { responses: [{ ...spread.pads[0].own.responses![0], amount: 17 }] } }
  expect(proposeLevel(set, 4)).toEqual([])
})

test('a duplicate has ids of its own and sounds the same clips; removing a pad leaves no tie or bead of it', () => {
  const kit = aKitOf(aPad(2), aPad(1))
  const [pad, other] = kit.pads
  const copied = after(kit, duplicateEdits(kit, pad).edits).pads[1]
  expect(copied.id).not.toBe(pad.id)
  expect(Object.values(copied.bands[0].turns[0].clips)).toEqual(Object.values(pad.bands[0].turns[0].clips))
  expect(copied.bands[0].turns[0].clips[copied.rays[0].id]).toBeDefined()
  const tied = after(kit, inChokeGroup(makeId, kit, pad.id, 'new'))
  const both = after(tied, inChokeGroup(makeId, tied, other.id, tied.ties[0].id as TieId))
  expect(both.ties[0]).toMatchObject({ pads: [pad.id, other.id] })
  expect(after(both, [{ type: 'removePad', padId: pad.id }]).ties[0]).toMatchObject({ pads: [other.id] })
  const twice = after(both, duplicateEdits(both, pad).edits)
  expect(twice.ties[0]).toMatchObject({ pads: [pad.id, other.id, twice.pads[1].id] })
})

test('what moves one ray of a pad moves the same ray of its copy', () => {
  const pad = aPad(2)
  const responses = [responseTo('velocity', 'gainDb', -6, { ray: pad.rays[0]!.id }), responseTo('wheel', 'pan', 1)]
  const { copy } = duplicateEdits(aKitOf({ ...pad, own: { ...pad.own, responses } }), { ...pad, own: { ...pad.own, responses } })
  expect(copy.own.responses!.map(({ to }) => to)).toEqual([[{ param: 'gainDb', ray: copy.rays[0]!.id }], [{ param: 'pan' }]])
})
