import { applyBatch, makeChange, createKit, createPad, createRay, createSource, kitKind } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, Source } from '@heliaster/core/kit'
import { asTurns, cellsOf, planByNames, readNames } from '@heliaster/core/place'

import { makeId } from '../../../documents/make-id'
import { placeEdits, placeFiles } from '../../place'
import type { PlaceHow } from '../../place'
import { sendEdits } from '../../../kit-view/buses/bus-edits'
import { cellsInScope, scopesOf } from '../pad/cells/cell-scopes'
import { copySettingsEdits } from '../several/copy-settings'

const info = { name: 'x.wav', sampleRateHz: 48000, frames: 4800, channels: 1 }
const file = (name: string, i: number): Source => createSource(makeId, String(i).padStart(64, '0') as never, info, name)
const thump = ['close', 'far'].flatMap((mic) => [1, 2].flatMap((level) => [1, 2, 3].map((take) => `hull_${mic}_v${level}_rr${take}`)))
const files = thump.map(file)

const after = (kit: Kit, edits: KitEdit[]) => {
  const { doc, refused, inverses } = makeChange(kitKind, kit, edits)
  expect(refused).toEqual([])
  expect(applyBatch(kitKind, doc, inverses).doc).toEqual(kit)
  return doc
}
const kitOf = (...pads: Pad[]): Kit => ({ ...createKit(makeId, 'K'), pads })
const loudness = new Map(files.map(({ audio }, i) => [audio, -40 + 2 * i]))

function placed(kit: Kit, how: Partial<PlaceHow>, of: readonly Source[] = files): Kit {
  const placing = placeFiles(kit, of, { way: 'turns', loudness, ...how })
  return after(kit, placeEdits(kit, of, placing))
}

function namedKit(): Kit {
  const named = files.map(({ name }) => ({ name }))
  return placed(kitOf(), { way: 'names', plan: planByNames(named, readNames(named)) })
}

const shape = ({ bands }: Pad) => bands.map(({ turns }) => turns.length)

test('many files reach pads in every manner, in one step that undo takes back', () => {
  const byNames = namedKit()
  expect([shape(byNames.pads[0]), byNames.pads[0].rays.map(({ name }) => name), byNames.buses.map(({ name }) => name)]).toEqual([[3, 3], ['Close', 'Far'], ['close', 'far']]) // prettier-ignore
  const turns = placed(kitOf(), { way: 'turns' }).pads[0]
  expect([shape(turns), turns.own.pick, turns.own.name]).toEqual([[12], 'shuffle', 'hull'])
  expect(shape(placed(kitOf(), { way: 'bands' }).pads[0])).toEqual(new Array(12).fill(1))
  const byLoudness = placed(kitOf(), { way: 'loudness' }).pads[0]
  expect([byLoudness.spread, shape(byLoudness).reduce((sum, n) => sum + n)]).toEqual(['loudness', 12])
  expect(placed(kitOf(), { way: 'rays' }).pads[0].rays).toHaveLength(12)
  const each = placed(kitOf(), { way: 'pads' }).pads
  expect([each.length, each[1].notes]).toEqual([12, [37]])
})

test('files put onto a pad leave every setting as it is, and come besides what is there when that is wanted', () => {
  const own = { name: 'Kept', values: { pan: 0.4, gainDb: -7 } }
  const pad = { ...createPad(makeId, own, 50), bands: [] as Pad['bands'] }
  const filled = { ...pad, bands: asTurns(makeId, pad.rays[0].id, Object.values(placeFiles(kitOf(), files, { way: 'turns', loudness }).pads[0].bands[0].turns[0].clips) as never) } // prettier-ignore
  const kit = kitOf(filled)
  const replaced = placed(kit, { onto: filled }).pads[0]
  expect([replaced.own, replaced.notes, shape(replaced)]).toEqual([own, [50], [12]])
  expect(shape(placed(kit, { onto: filled, stays: true }).pads[0])).toEqual([13])
  const rays = placed(kit, { way: 'rays', onto: filled, stays: true }, files.slice(0, 2)).pads[0].rays
  expect(rays.map(({ source }) => source.kind === 'clips' && source.bands?.length)).toEqual([undefined, 1, 1])
})

test('one ray gets other clips cell by cell, and the other rays keep theirs', () => {
  const kit = namedKit()
  const [pad] = kit.pads
  const others = ['a', 'b', 'c', 'd', 'e', 'f', 'g'].map((name, i) => file(name, 100 + i))
  const [next] = placed(kit, { onto: pad, cells: cellsOf(pad, pad.rays[1].id) }, others).pads
  expect(shape(next)).toEqual(shape(pad))
  const audioOf = (of: Pad, ray: number) => of.bands.flatMap(({ turns }) => turns.map(({ clips }) => clips[of.rays[ray].id] as { audio: string })).map(({ audio }) => audio) // prettier-ignore
  expect(audioOf(next, 0)).toEqual(audioOf(pad, 0))
  expect(audioOf(next, 1)).toEqual(others.slice(0, 6).map(({ audio }) => audio))
})

test('a setting of a cell can be for its band, its turn, its microphone, its strike or the whole pad, and for no other', () => {
  const [pad] = namedKit().pads
  const cells = cellsOf(pad, pad.rays[0].id)!
  const { turns } = pad.bands[1]
  const count = (scope: 'cell' | 'band' | 'turn' | 'ray' | 'strike' | 'pad') => cellsInScope(cells, turns[2].id, scope).length
  expect([count('cell'), count('band'), count('turn'), count('ray'), count('strike'), count('pad')]).toEqual([1, 3, 2, 6, 2, 12])
  expect(scopesOf(pad, cells, 1, 2).map(({ text }) => text)).toEqual(['This cell', 'All of band 2', 'All turns 3', 'All of Close', 'All rays here', 'All of the pad']) // prettier-ignore
  const marked = [pad.bands[0].turns[0].id, turns[1].id]
  expect(cellsInScope(cells, turns[2].id, 'marked', marked).map(({ turnId, rayId }) => [turnId, rayId])).toEqual(
    marked.map((id) => [id, pad.rays[0].id]),
  )
  expect(scopesOf(pad, cells, 1, 2, 2)[0]).toEqual({ value: 'marked', text: 'These 2 cells' })
  expect(scopesOf(pad, cells, 1, 2, 1)[0].value).toBe('cell')
  expect(cellsInScope(cells, turns[2].id, 'strike').every(({ turnId }) => turnId === turns[2].id)).toBe(true)
})

test('settings are copied by group, what the model leaves as it comes included; names and clips stay', () => {
  const model = createPad(makeId, { name: 'Model', values: { gainDb: -3 }, pick: 'random' }, 40)
  const other = createPad(makeId, { name: 'Other', values: { pan: 0.5, gainDb: 2 }, mode: 'hold' }, 41)
  const kit = kitOf(model, other)
  const own = (group: 'level' | 'all') => after(kit, copySettingsEdits(model, kit.pads, group)).pads[1].own
  expect(own('level')).toEqual({ name: 'Other', values: { gainDb: -3 }, mode: 'hold' })
  expect(own('all')).toEqual({ name: 'Other', values: { gainDb: -3 }, pick: 'random' })
})

test('a bus that is removed leaves no ray or pad that goes to it', () => {
  const kit = namedKit()
  const sent = after(kit, sendEdits(kit.pads[0], undefined, kit.buses[0].id, ''))
  const gone = after(sent, [{ type: 'removeBus', busId: kit.buses[0].id }])
  expect([gone.buses.length, gone.pads[0].own.bus, gone.pads[0].rays.map(({ bus }) => bus)]).toEqual([1, undefined, [undefined, kit.buses[1].id]]) // prettier-ignore
  const made = after(kit, sendEdits({ ...kit.pads[0], rays: [createRay(makeId, 'x')] }, kit.pads[0].rays[0].id, 'new', 'Shed'))
  expect(made.buses.map(({ name }) => name)).toEqual(['close', 'far', 'Shed'])
})
