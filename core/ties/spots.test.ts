import fc from 'fast-check'

import {
  applyEdit,
  createBand,
  createKit,
  createPad,
  createTurn,
  families,
  filledPad,
  kitSchema,
  lenderOf,
  padSettings,
  wholeClip,
} from '../kit'
import type { AudioHash, Kit, KitEdit, Pad, PadId } from '../kit'
import { testIds } from '../kit/testing'
import { drawnTie, drumsOf, leaderOf, spotsOf, spotsProposed, withoutSpot, withSpot, withSpotName } from '.'

const makeId = testIds(77)
const filled = (name: string, note: number): Pad => {
  const pad = createPad(makeId, { name, family: 'snare', values: { gainDb: -3 } }, note)
  const clip = wholeClip(note.toString(16).padStart(64, '0') as AudioHash, { frames: 4800, channels: 1 })
  return { ...pad, bands: [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0]!.id]: clip })])] }
}
const [hull, hatch, keel] = [filled('Hull', 36), filled('Hatch', 37), filled('Keel', 38)]
const plain: Kit = { ...createKit(makeId, 'Spots'), pads: [hull, hatch, keel] }
const edited = (kit: Kit, edits: readonly KitEdit[]): Kit => edits.reduce(applyEdit, kit)
const more = (kit: Kit, padId: PadId, name: string, existing?: PadId) =>
  edited(kit, withSpot(makeId, kit, padId, name, existing)?.edits ?? [])

test('every kind of drum has spots to propose, each once', () => {
  for (const family of families) {
    expect(spotsProposed(family).length).toBeGreaterThan(1)
    expect(new Set(spotsProposed(family)).size).toBe(spotsProposed(family).length)
  }
  expect(spotsProposed('ride')).toEqual(spotsProposed('cymbal'))
})

test('a new spot comes last on a free note, takes what is set on the first one, and borrows its sounds until it has its own', () => {
  const kit = more(plain, hull.id, 'Rim')
  const drum = spotsOf(kit, hull.id)!
  const rim = kit.pads[3]!
  expect(drum.spots).toEqual([{ pad: hull.id, name: 'Head' }, { pad: rim.id, name: 'Rim' }]) // prettier-ignore
  expect([padSettings(kit, rim).name, rim.notes, rim.leansOn, padSettings(kit, rim).values.gainDb]).toEqual(['Hull rim', [39], hull.id, -3])
  expect(lenderOf(kit, rim)).toBe(hull)
  expect(filledPad(kit, rim).bands).toBe(hull.bands)
  const own = edited(kit, [{ type: 'setPadFilling', padId: rim.id, rays: hatch.rays, bands: hatch.bands }])
  expect(lenderOf(own, own.pads[3]!)).toBeUndefined()
  expect(filledPad(own, own.pads[3]!).bands).toEqual(hatch.bands)
})

test('the nearest spot lends, the one before where two are as near; openings lend before spots', () => {
  let kit = plain
  for (const name of ['Rim', 'Shell', 'Hoop']) kit = more(kit, hull.id, name)
  const [, rim, shell, hoop] = spotsOf(kit, hull.id)!.spots.map(({ pad }) => kit.pads.find(({ id }) => id === pad)!)
  const full = edited(kit, [{ type: 'setPadFilling', padId: hoop!.id, rays: keel.rays, bands: keel.bands }])
  const lender = (in_: Kit, pad: Pad) =>
    lenderOf(
      in_,
      in_.pads.find(({ id }) => id === pad.id)!,
    )?.id
  expect([lender(full, rim!), lender(full, shell!)]).toEqual([hull.id, hoop!.id])
  const opened = edited(full, [
    { type: 'putTie', tie: { id: 'tie-o' as never, kind: 'openings', controller: 4, steps: [{ pad: hatch.id, from: 0 }, { pad: rim!.id, from: 64 }] } }, // prettier-ignore
  ])
  expect(lender(opened, rim!)).toBe(hatch.id)
})

test('whatever spots are put together and taken apart, the kit is whole, each pad is shown once, and drums where their first pad stands', () => {
  const step = fc.record({ pad: fc.nat(8), other: fc.option(fc.nat(8)), takesOut: fc.boolean(), opens: fc.boolean() })
  fc.assert(
    fc.property(fc.array(step, { maxLength: 14 }), (steps) => {
      let kit = plain
      for (const { pad, other, takesOut, opens } of steps) {
        const padId = kit.pads[pad % kit.pads.length]!.id
        if (opens && other !== null) kit = edited(kit, drawnTie(makeId, kit, 'openings', padId, kit.pads[other % kit.pads.length]!.id))
        else if (takesOut) kit = edited(kit, withoutSpot(kit, padId))
        else kit = more(kit, padId, 'Rim', other === null ? undefined : kit.pads[other % kit.pads.length]!.id)
        expect(kitSchema.safeParse(kit).success).toBe(true)
        const shown = drumsOf(kit)
        expect(shown.flatMap(({ pads, behind }) => [...pads, ...behind.flat()].map(({ id }) => id)).sort()).toEqual(
          kit.pads.map(({ id }) => id).sort(),
        )
        for (const { pads, drum, behind } of shown) {
          expect(pads.length > 1).toBe(drum !== undefined)
          expect(behind).toHaveLength(pads.length)
        }
        const firsts = shown.map(({ pads }) => Math.min(...pads.map((one) => kit.pads.indexOf(one))))
        expect(firsts).toEqual([...firsts].sort((a, b) => a - b))
        for (const tie of kit.ties) if (tie.kind === 'spots') expect(tie.spots.length).toBeGreaterThan(1)
      }
    }),
    { numRuns: 60 },
  )
})

test('a pad that leaves its drum keeps what it sounds; spots are renamed; a pad is a spot of one drum', () => {
  let kit = more(more(plain, hull.id, 'Rim', hatch.id), keel.id, 'Edge')
  expect(leaderOf(spotsOf(kit, hatch.id)!)).toBe(hull.id)
  kit = more(kit, keel.id, 'Side', hatch.id)
  expect(spotsOf(kit, hull.id)).toBeUndefined() // it was alone on its drum
  expect(spotsOf(kit, hatch.id)!.spots.map(({ name }) => name)).toEqual(['Head', 'Edge', 'Side'])
  kit = edited(kit, withSpotName(spotsOf(kit, hatch.id)!, hatch.id, 'Lip'))
  expect(spotsOf(kit, hatch.id)!.spots[2]!.name).toBe('Lip')
  expect(kit.pads.find(({ id }) => id === hatch.id)!.bands).toEqual(hatch.bands)
  const out = edited(kit, withoutSpot(kit, hatch.id))
  expect(out.pads.find(({ id }) => id === hatch.id)).toEqual(kit.pads.find(({ id }) => id === hatch.id))
})
