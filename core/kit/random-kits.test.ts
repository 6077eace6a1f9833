import { compileGroove } from '../engine/program/compile-groove'
import { compileKit } from '../engine/program/compile-kit'
import { compilePad } from '../engine/program/compile-pad'
import { checkKit } from '../ship/check'
import { applyBatch, kitKind, makeChange } from './document'
import { triedDifference } from './elements'
import { kitFault } from './fault'
import { kitGround } from './ground'
import { kitSchema } from './kit'
import type { Kit } from './kit'
import { kitEditSchema } from './kit-edit'
import { notPlayed, notPlayedOfKit, notPlayedOfPad } from './not-played'
import { aKit, anImpulse, randomEdit, randomKitOf, seeded } from './testing'
import { tidied } from './tidy'
import { readKit } from './upgrade'

const kitOf = (seed: number) => randomKitOf(kitSchema, seeded(seed)) as Kit
const sent = <T>(data: T): T => JSON.parse(JSON.stringify(data)) as T

/** Every word of a document that stands where an id is named, and every id there is, found by the names of fields alone. */
function idsIn(value: unknown, key = '', found = { named: new Set<string>(), had: new Set<string>() }) {
  if (Array.isArray(value)) for (const item of value) idsIn(item, key, found)
  else if (typeof value === 'object' && value !== null) for (const [name, one] of Object.entries(value)) idsIn(one, name, found)
  else if (key === 'id') found.had.add(String(value))
  else if (['padId', 'busId', 'pad', 'ray', 'rays', 'bands', 'bus', 'out', 'leansOn', 'groove', 'grooveId', 'after', 'unless', 'turn', 'band'].includes(key)) found.named.add(String(value)) // prettier-ignore
  return found
}

test('kits of everything that can be said are read, sent, checked and compiled, and name nothing that is not there', () => {
  for (let seed = 1; seed <= 300; seed++) {
    const kit = kitOf(seed)
    expect([seed, readKit(sent(kit))]).toEqual([seed, { ok: true, value: kit }])
    expect([seed, kitFault(kit)]).toEqual([seed, undefined])
    expect(tidied(kit)).toEqual(kit)
    const { named, had } = idsIn(kit)
    expect([seed, [...named].filter((id) => !had.has(id))]).toEqual([seed, []])
    const said = checkKit(kit, () => true).map(({ message }) => message)
    expect([seed, said.filter((message) => !/[.]$/.test(message) || /undefined|NaN|\[object/.test(message))]).toEqual([seed, []])
    const context = { sampleRateHz: 48000, slotOf: () => 1, busSlotOf: () => 1, beadSlotOf: () => 1, regionOf: () => ({ chunk: 0, left: 4, right: -1, frames: 9, sampleRateHz: 44100, levels: 0 }), effectOf: (_: string, make: () => unknown) => (make() ? { unit: 0, chunk: 0, lines: 0, made: make() } : undefined), impulseOf: () => undefined } // prettier-ignore
    const programs = [...kit.pads.map((pad) => compilePad(kit, pad, context as never)), compileKit(kit, context as never), compileGroove(kit, undefined, context as never)] // prettier-ignore
    for (const program of programs) expect((program ?? new Float64Array(0)).some(Number.isNaN)).toBe(false)
  }
})

test('from any kit to any other and back by edits of single elements, as they are sent', () => {
  let edits = 0
  for (let seed = 1; seed <= 120; seed++) {
    const [before, after] = [kitOf(seed), { ...kitOf(seed + 1000), id: kitOf(seed).id }]
    const way = triedDifference(before, after, kitGround, kitKind.bare)
    const parsed = way.map((edit) => kitEditSchema.parse(sent(edit)))
    expect([seed, applyBatch(kitKind, before, parsed)]).toEqual([seed, { doc: after, refused: [] }])
    const back = triedDifference(after, before, kitGround, kitKind.bare)
    expect(applyBatch(kitKind, after, sent(back)).doc).toEqual(before)
    edits += way.length
  }
  expect(edits).toBeGreaterThan(5000)
})

test('any edit of any kit can be kept and is undone; what another device did meanwhile is joined and names nothing that is gone', () => {
  for (let seed = 1; seed <= 150; seed++) {
    const random = seeded(seed)
    const kit = kitOf(seed)
    const [mine, theirs] = [0, 1].map(() => makeChange(kitKind, kit, [randomEdit(kit, random)]))
    expect(applyBatch(kitKind, mine.doc, mine.inverses).doc).toEqual(kit)
    const { doc } = applyBatch(kitKind, theirs.doc, sent(mine.edits))
    expect([seed, kitFault(doc)]).toEqual([seed, undefined])
    expect(readKit(sent(doc))).toEqual({ ok: true, value: doc })
    const { named, had } = idsIn(doc)
    expect([seed, [...named].filter((id) => !had.has(id))]).toEqual([seed, []])
  }
})

test('what is not played is found in some kit, each line of the table, and nothing is named in a plain one', () => {
  const named = new Set<string>()
  for (let seed = 1; seed <= 300; seed++) {
    const kit = kitOf(seed)
    for (const words of [...notPlayedOfKit(kit), ...kit.pads.flatMap((pad) => notPlayedOfPad(kit, pad))]) named.add(words)
  }
  expect([...new Set(notPlayed.map((one) => one.words))].filter((words) => !named.has(words))).toEqual([])
  const { kit } = aKit([{ own: { values: { gainDb: -3, startSeconds: 0.01 } }, bands: [[anImpulse()]] }])
  expect([notPlayedOfKit(kit), notPlayedOfPad(kit, kit.pads[0])]).toEqual([[], []])
})

test('buses in a circle are refused, and what goes with a bus, a pad or a band leaves no address behind', () => {
  const kit = kitOf(3)
  const two = { ...kit, buses: [], responses: [], inserts: [], pads: kit.pads.map((pad) => ({ ...pad, own: {}, rays: [] })), ties: [], grooves: [], song: [] } // prettier-ignore
  const bus = (id: string, out: string) => ({ id: id as never, name: id, values: {}, mute: false, isReturn: false, inserts: [], sends: [], out: out as never }) // prettier-ignore
  const circle = applyBatch(kitKind, two, [{ type: 'putBus', bus: bus('a', 'b') }, { type: 'putBus', bus: bus('b', 'a') }]) // prettier-ignore
  expect(circle.refused[0].reason).toContain('circle')
  const tiller = { id: 't', name: 'Depth', value: 0.5, to: [{ id: 'x', address: { scope: 'bus' as const, id: 'a', param: 'gainDb' }, from: -6, to: 0 }] } // prettier-ignore
  const led = applyBatch(kitKind, two, [{ type: 'putBus', bus: { ...bus('a', 'a'), out: undefined } as never }, { type: 'setKit', fields: { tillers: [tiller] } }]).doc // prettier-ignore
  expect(led.tillers[0].to).toHaveLength(1)
  expect(applyBatch(kitKind, led, [{ type: 'removeBus', busId: 'a' as never }]).doc.tillers[0].to).toEqual([])
})
