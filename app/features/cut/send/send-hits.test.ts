import { createSource } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'

import { makeId } from '../../../documents/make-id'
import { aKitOf, aPad, after, audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { loopEdits, padsToSend, sendEdits, updateEdits } from './send-hits'

const hits = hitsOf

test('hits are sent each to a pad, as turns, or as bands, and the kit never outgrows its 128 pads', () => {
  const source = createSource(makeId, audio, info, 'Walk')
  const kit = aKitOf(aPad(1))
  const each = after(kit, sendEdits(kit, source, padsToSend(kit, source, hits(3), { way: 'pads', order: 'time' }), hits(3)))
  expect(each.pads.slice(1).map((pad) => [pad.own.name, pad.notes[0]])).toEqual([['Wood 0.00', 36], ['Wood 0.02', 37], ['Wood 0.04', 38]]) // prettier-ignore
  expect(padsToSend(kit, source, hits(200), { way: 'pads', order: 'time' })).toHaveLength(127)
  expect(padsToSend(kit, source, hits(9), { way: 'turns', order: 'time' })[0].bands[0].turns).toHaveLength(9)
  expect(padsToSend(kit, source, hits(9), { way: 'bands', order: 'time', bandCount: 3 })[0].bands).toHaveLength(3)
})

test('slices of a loop become pads of one choke group and a groove that plays them on their beats; a start settles each new pad', () => {
  const grid = { kind: 'beats' as const, tempoBpm: 120, firstSeconds: 0, beats: 0.5 }
  const source = createSource(makeId, audio, info, 'Loop', { cut: { waterLine: 0.3, minGapSeconds: 0.06, grid } })
  const kit = aKitOf(aPad(1))
  const slices = hits(4).map((item, i) => ({ ...item, marker: { ...item.marker, frame: i * 12000 } }))
  const pads = padsToSend(kit, source, slices, { way: 'loop', order: 'time', start: { maxStrikes: 2 } })
  const made = after(kit, [...sendEdits(kit, source, pads, slices), ...loopEdits(source, slices, pads)])
  expect(made.grooves[0]).toMatchObject({ stepsPerBeat: 4, lengthSteps: 16 })
  expect(made.grooves[0].strings.map(({ beads }) => beads[0].step)).toEqual([0, 2, 4, 6])
  expect(made.ties[0]).toMatchObject({ kind: 'chokeGroup', pads: pads.map((pad) => pad.id) })
  expect(made.pads.slice(1).every((pad) => pad.own.maxStrikes === 2)).toBe(true)
  expect(made.tempoBpm).toBe(kit.tempoBpm)
  const late = slices.map((item, i) => ({ ...item, marker: { ...item.marker, frame: i * 12000 + 2900, gridFrame: i * 12000 } }))
  const taken = after(kit, [...sendEdits(kit, source, pads, late), ...loopEdits(source, late, pads, 'groove-own' as never, true)])
  expect(taken.tempoBpm).toBe(120)
  expect(taken.grooves[0].id).toBe('groove-own')
  expect(taken.grooves[0].strings.map(({ beads }) => beads[0].step)).toEqual([0, 2, 4, 6]) // where the grid had them
})

test('an update brings a pad the place and the repairs of its hit, and leaves the level of a pad that goes by loudness', () => {
  const source = createSource(makeId, audio, info, 'Walk')
  const kit = aKitOf(aPad(1))
  const items = hits(3)
  const sent = (way: 'turns' | 'bands') =>
    after(kit, sendEdits(kit, source, padsToSend(kit, source, items, { way, order: 'time', bandCount: 2 }), items))
  const [first, ...rest] = items
  const repaired = [{ ...first, marker: { ...first.marker, kept: true, clip: { gainDb: 5, reverse: true } } }, ...rest]
  const clipOf = (changed: Kit) =>
    changed.pads[1].bands.flatMap((band) => band.turns).flatMap((turn) => Object.values(turn.clips)).find((clip) => clip !== 'intendedSilence' && clip.reverse) // prettier-ignore
  const turns = sent('turns')
  expect(updateEdits(turns, source, items)).toEqual([])
  expect(clipOf(after(turns, updateEdits(turns, source, repaired)))).toMatchObject({ gainDb: 5 })
  const bands = sent('bands')
  expect(clipOf(after(bands, updateEdits(bands, source, repaired)))).toMatchObject({ gainDb: 0 })
})

test('sending onto a pad replaces its clips and keeps its settings and its ray', () => {
  const source = createSource(makeId, audio, info, 'Walk')
  const kit = aKitOf({ ...aPad(2), own: { name: 'Kept', values: { pan: 0.4 } } })
  const [pad] = after(
    kit,
    sendEdits(kit, source, padsToSend(kit, source, hits(4), { way: 'turns', order: 'time', onto: kit.pads[0].id }), hits(4)),
  ).pads
  expect(pad.own).toEqual({ name: 'Kept', values: { pan: 0.4 } })
  expect(pad.bands[0].turns.every((turn) => pad.rays[0].id in turn.clips)).toBe(true)
})

test('a pad that is called by its sound is called by the next one too; a name that was typed stays', () => {
  const source = createSource(makeId, audio, info, 'Walk')
  const kit = aKitOf({ ...aPad(0), own: { name: 'Pad 1' } })
  const one = (from: number) => hits(from + 1).slice(from)
  const send = (into: Kit, items: ReturnType<typeof hits>) =>
    after(into, sendEdits(into, source, padsToSend(into, source, items, { way: 'pads', order: 'time', onto: into.pads[0].id }), items))
  const first = send(kit, one(1))
  expect(first.pads[0].own.name).toBe('Wood 0.02')
  const second = send(first, one(2).map((item) => ({ ...item, marker: { ...item.marker, name: 'Oar knock' } }))) // prettier-ignore
  expect(second.pads[0].own.name).toBe('Oar knock')
  const typed = after(second, [{ type: 'setPad', padId: second.pads[0].id, own: { name: 'My knock' } }])
  expect(send(typed, one(3)).pads[0].own.name).toBe('My knock')
})
