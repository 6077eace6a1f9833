import {
  applyEdit, createBand, createKit, createPad, createTurn, kitSchema, lenderOf, padSettings, wholeClip,
} from '../../kit' // prettier-ignore
import type { AudioHash, Kit, KitEdit, Pad } from '../../kit'
import { seeded, testIds } from '../../kit/testing'
import { drumTable, openWords, readPads, tableEdits, tableProposed, tablesSaid, withCell, withOpening, withThreshold } from '.'

const makeId = testIds(78)
const filled = (name: string, note: number): Pad => {
  const pad = createPad(makeId, { name, family: 'hat' }, note)
  const clip = wholeClip(note.toString(16).padStart(64, '0') as AudioHash, { frames: 4800, channels: 1 })
  return { ...pad, bands: [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0]!.id]: clip })])] }
}
const NAMES = ['Oar', 'Hatch bow closed', 'Hatch bow open', 'Hatch edge closed', 'Hatch bow half', 'Hatch cup open', 'Hatch edge open']
const plain: Kit = { ...createKit(makeId, 'Table'), pads: NAMES.map((name, i) => filled(name, 40 + i)) }
const edited = (kit: Kit, edits: readonly KitEdit[]): Kit => edits.reduce(applyEdit, kit)
const named = (kit: Kit, name: string) => kit.pads.find((pad) => padSettings(kit, pad).name === name)!
const made = edited(plain, tableEdits(makeId, plain, tableProposed(plain, named(plain, 'Hatch bow open').id)!))
const table = (kit: Kit, name = 'Hatch bow closed') => drumTable(kit, named(kit, name).id)!
const words = (kit: Kit) =>
  table(kit).rows.map(({ cells }) => cells.map(({ pad, lender }) => [pad && padSettings(kit, pad).name, lender && padSettings(kit, lender).name].filter(Boolean).join(' < ') || '·')) // prettier-ignore

test('pads whose names share a word become one drum in one action; holes borrow from the nearest, and are named', () => {
  expect(kitSchema.safeParse(made).success).toBe(true)
  expect([table(made).drum?.name, table(made).columns]).toEqual(['Hatch', [0, 43, 85]])
  expect(words(made)).toEqual([
    ['Hatch bow closed', 'Hatch bow half', 'Hatch bow open'],
    ['Hatch edge closed', 'Hatch edge half < Hatch edge closed', 'Hatch edge open'],
    ['Hatch cup closed < Hatch cup open', 'Hatch cup half < Hatch cup open', 'Hatch cup open'],
  ])
  expect(made.ties.filter(({ kind }) => kind === 'spots')).toHaveLength(1)
  expect(drumTable(made, named(made, 'Oar').id)).toBeUndefined()
  for (const { id } of plain.pads) expect(made.pads.find((pad) => pad.id === id)).toBe(plain.pads.find((pad) => pad.id === id))
})

test('of many pads those are told that are drums by known words, each pad in one; numbers alone tell none', () => {
  const names = ['Hatch closed', 'Hatch open', 'Oar 1', 'Oar 2', 'Keel rim', 'Keel', 'Hatch half open', 'Bell']
  const kit: Kit = { ...plain, pads: names.map((name, i) => filled(name, 40 + i)) }
  const told = tablesSaid(kit, kit.pads.map(({ id }) => id)) // prettier-ignore
  expect(told.map(({ name, spots, openings }) => [name, spots, openings])).toEqual([
    ['Hatch', [''], ['Closed', 'Half open', 'Open']],
    ['Keel', ['Rim', ''], ['']],
  ])
  expect(tableProposed(kit, kit.pads[2]!.id)).toBeUndefined()
})

test('made again, a drum is the same and no pad is in two', () => {
  const again = edited(made, tableEdits(makeId, made, readPads(made, made.pads.filter(({ leansOn, id }) => !leansOn && id !== plain.pads[0]!.id).map(({ id }) => id))!)) // prettier-ignore
  const inTies = again.ties.flatMap((tie) => (tie.kind === 'openings' ? tie.steps.map(({ pad }) => pad) : []))
  expect(new Set(inTies).size).toBe(inTies.length)
  expect(again.ties.filter(({ kind }) => kind === 'spots')).toHaveLength(1)
})

test('a threshold moves for all spots together, between its neighbours', () => {
  const moved = edited(made, withThreshold(table(made), 1, 60))
  expect(table(moved).columns).toEqual([0, 60, 85])
  expect(words(moved)).toEqual(words(made))
  expect(table(edited(made, withThreshold(table(made), 1, 127))).columns).toEqual([0, 84, 85])
  expect(table(edited(made, withThreshold(table(made), 1, 0))).columns).toEqual([0, 1, 85])
  expect(withThreshold(table(made), 1, 43)).toEqual([])
  expect([0, 1, 2].map((column) => openWords(table(made).columns, column))).toEqual(['Closed', '50 % open', 'Open'])
})

test('a hole is filled with a pad that is there or an empty one; one more opening comes for each spot', () => {
  const { tie } = table(made).rows[1]!
  const holed = edited(made, [{ type: 'putTie', tie: { ...tie!, steps: tie!.steps.filter(({ from }) => from !== 43) } }])
  expect(words(holed)[1]).toEqual(['Hatch edge closed', '·', 'Hatch edge open'])
  const from = named(holed, 'Hatch bow closed').id
  const empty = edited(holed, withCell(makeId, holed, from, 1, 1)!)
  expect(words(empty)[1]![1]).toBe('Hatch edge closed 50 % open < Hatch edge closed')
  expect(words(edited(holed, withCell(makeId, holed, from, 1, 1, named(holed, 'Oar').id)!))[1]![1]).toBe('Oar')
  expect(withCell(makeId, holed, from, 1, 0)).toBeUndefined()
  const more = edited(made, withOpening(makeId, made, from)!)
  expect([table(more).columns, table(more).rows.map(({ cells }) => cells.length)]).toEqual([[0, 32, 64, 96], [4, 4, 4]]) // prettier-ignore
  const full: Kit = {
    ...made,
    pads: [...made.pads, ...Array.from({ length: 128 - made.pads.length }, () => createPad(makeId, {}, undefined))],
  }
  expect(withOpening(makeId, full, from)).toBeUndefined()
  const alone = edited(plain, withOpening(makeId, plain, plain.pads[0]!.id)!)
  expect(lenderOf(alone, alone.pads[alone.pads.length - 1]!)).toBe(alone.pads[0])
})

test('whatever pads are read as a drum, the kit stays whole and what fills the pads stays', () => {
  for (let seed = 1; seed < 60; seed++) {
    const random = seeded(seed)
    const rows = ['bow', 'edge', 'cup', ''].slice(0, 1 + Math.floor(random() * 4))
    const columns = ['closed', 'half', 'open', 'wide'].slice(0, 1 + Math.floor(random() * 4))
    const names = rows.flatMap((row) => columns.map((column) => `Hatch ${row} ${column}`)).filter(() => random() < 0.85)
    const kit: Kit = {
      ...plain,
      pads: names.map((name, i) => filled(name, 30 + i)),
      ties: random() < 0.5 ? made.ties.filter(() => false) : [],
    }
    const reading = kit.pads.length > 0 ? readPads(kit, kit.pads.map(({ id }) => id)) : undefined // prettier-ignore
    if (!reading) continue
    const after = edited(kit, tableEdits(makeId, kit, reading))
    expect(kitSchema.safeParse(after).success).toBe(true)
    for (const pad of kit.pads) expect(after.pads.find(({ id }) => id === pad.id)).toBe(pad)
    const shown = drumTable(after, kit.pads[0]!.id)!
    expect(new Set(shown.rows.flatMap(({ cells }) => cells.map(({ pad }) => pad?.id))).size).toBe(
      reading.spots.length * reading.openings.length,
    )
    for (const { cells } of shown.rows) for (const { pad, lender } of cells) expect(pad && (pad.bands.length > 0 || lender)).toBeTruthy()
  }
})
