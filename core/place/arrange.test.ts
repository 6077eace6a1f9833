import fc from 'fast-check'

import { aKit, anImpulse, hashOf, testIds } from '../kit/builders'
import { applyEdit } from '../kit/kit-edit'
import { bandSchema } from '../kit/kit'
import type { Band, Kit, Pad } from '../kit/kit'
import { createRay, wholeClip } from '../kit/make'
import { clipsOfPad } from '../kit/resolve'
import { addBand, mergeDown, moveTurn, removeBand, swapTurns, withoutTurn, withoutTurns } from './arrange'
import { exchangeClips, keepSettings } from './cells'
import { toOwnCells, toSharedCells } from './own-cells'
import { oddOnes } from './odd-ones'
import { swapPads } from './swap-pads'

const padOf = (turns: readonly number[]) =>
  aKit([{ bands: turns.map((count) => Array.from({ length: count }, () => anImpulse(4))) }]).kit.pads[0]
const idsOf = (bands: readonly Band[]) => bands.flatMap((band) => band.turns.map((turn) => turn.id)).sort()
const anyBands = fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 6 })

test('whatever is swapped, moved or merged, no turn is lost or doubled and the bands still reach from 1 up', () => {
  fc.assert(
    fc.property(
      anyBands,
      fc.array(fc.tuple(fc.constantFrom('swap', 'move', 'merge'), fc.nat(99), fc.nat(99)), { maxLength: 12 }),
      (turns, steps) => {
        const pad = padOf(turns)
        let { bands } = pad
        for (const [what, x, y] of steps) {
          const all = bands.flatMap((band) => band.turns)
          const band = bands[y % bands.length]
          if (what === 'merge') bands = mergeDown(bands, band.id)
        else if (all.length > 0) bands = what === 'move' ? moveTurn(bands, all[x % all.length].id, band.id) : swapTurns(bands, all[x % all.length].id, all[y % all.length].id) // prettier-ignore
        }
        expect(idsOf(bands)).toEqual(idsOf(pad.bands))
        bands.forEach((band, i) => expect([i === 0 ? band.fromVelocity === 1 : band.fromVelocity > bands[i - 1].fromVelocity, bandSchema.safeParse(band).success]).toEqual([true, true])) // prettier-ignore
      },
    ),
  )
})

test('a swap changes two places only; a band that goes leaves its velocities to its neighbour', () => {
  const { bands } = padOf([2, 2])
  const [[a, b], [c, d]] = bands.map((band) => band.turns.map((turn) => turn.id))
  expect(swapTurns(bands, a, d).map((band) => band.turns.map((turn) => turn.id))).toEqual([[d, b], [c, a]]) // prettier-ignore
  expect(removeBand(bands, bands[0].id).map((band) => [band.fromVelocity, band.turns.length])).toEqual([[1, 2]])
  expect(mergeDown(bands, bands[0].id)).toEqual(bands)
  let grown: Band[] = bands
  for (let i = 0; i < 12; i++) grown = addBand(testIds(i), grown)
  expect(grown.map((band) => band.fromVelocity)).toEqual([1, 65, 97, 113, 121, 125, 127])
})

/** A pad whose two rays share bands of 2 and 3 turns. */
function twoRays(): { kit: Kit; pad: Pad } {
  const { kit } = aKit([{ bands: [[anImpulse(4), anImpulse(4)], [anImpulse(4), anImpulse(4), anImpulse(4)]] }, { own: { values: { pan: 0.5 } }, bands: [[anImpulse(4)]] }]) // prettier-ignore
  const [first, other] = kit.pads
  const room = createRay(testIds(9), 'Room')
  const clip = wholeClip(hashOf('e'), { frames: 4, channels: 1 })
  const pad = {
    ...first,
    rays: [...first.rays, room],
    bands: exchangeClips(
      first.bands,
      room.id,
      Array.from({ length: 4 }, () => clip),
    ),
  }
  return { kit: { ...kit, pads: [pad, other] }, pad }
}

test('a ray takes its clips into bands of its own and brings them back, and no other ray changes', () => {
  const { pad } = twoRays()
  const [body, room] = pad.rays
  const apart: Pad = { ...pad, ...toOwnCells(testIds(3), pad, room.id) }
  expect(apart.bands.map((band) => band.turns.map((turn) => Object.keys(turn.clips)))).toEqual([
    [[body.id], [body.id]],
    [[body.id], [body.id], [body.id]],
  ])
  expect(clipsOfPad(apart)).toHaveLength(9)
  expect({ ...apart, ...toSharedCells(apart, room.id) }).toEqual(pad)
  const shorter = { ...apart, bands: apart.bands.slice(0, 1) }
  expect(toSharedCells(shorter, room.id)).toBeUndefined()
})

test('two pads exchange places, notes or clips; all else of both stays, and a second time brings all back', () => {
  const { kit, pad } = twoRays()
  const other = kit.pads[1]
  const after = (of: Kit, what: 'places' | 'notes' | 'clips') =>
    swapPads(
      of,
      of.pads.find(({ id }) => id === pad.id)!,
      of.pads.find(({ id }) => id === other.id)!,
      what,
    ).reduce(applyEdit, of)
  for (const what of ['places', 'notes'] as const) expect(after(after(kit, what), what)).toEqual(kit)
  const [one, two] = after(kit, 'clips').pads
  expect([one, two].map(({ id, notes, own }) => ({ id, notes, own }))).toEqual(kit.pads.map(({ id, notes, own }) => ({ id, notes, own })))
  expect(clipsOfPad(one)).toEqual(clipsOfPad(other))
  expect(clipsOfPad(two)).toEqual(clipsOfPad(pad))
})

test('the odd one out in a setting that most have alike is named, and nothing where opinions differ', () => {
  const pans = ['middle', 'middle', 'middle', 'middle', 'L 20']
  const items = pans.map((pan, i) => ({ name: `Pad ${i}`, values: { pan, pick: i < 3 ? 'cycle' : 'random', mode: 'one-shot' } }))
  expect(oddOnes(items)).toEqual([{ setting: 'pan', common: 'middle', count: 4, odd: [items[4]] }])
  expect(oddOnes(items.slice(3))).toEqual([])
})

test('new clips keep what was set on the bands and turns they take the place of; where there are others, they come as they are', () => {
  const { bands } = padOf([2, 3])
  const before = bands.map((band, i) => ({ ...band, fromVelocity: i === 0 ? 1 : 40, values: { gainDb: 3 + i }, blendVelocities: 5 * i, turns: band.turns.map((turn) => ({ ...turn, weight: 0.5 })) })) // prettier-ignore
  const after = padOf([2, 2]).bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: { other: wholeClip(hashOf('f'), { frames: 9, channels: 1 }) } })) })) // prettier-ignore
  const kept = keepSettings(before, after, 'kept')
  const settings = ({ fromVelocity, values, blendVelocities }: Band) => ({ fromVelocity, values, blendVelocities })
  expect(kept.map(settings)).toEqual(before.map(settings))
  expect(kept.map((band) => band.turns.map((turn) => turn.weight))).toEqual([[0.5, 0.5], [1, 1]]) // prettier-ignore
  expect(kept.map((band) => band.turns.map((turn) => turn.clips))).toEqual(after.map((band) => band.turns.map((turn) => turn.clips)))
  expect(keepSettings(before, after, 'brought')[1].fromVelocity).toBe(after[1].fromVelocity)
  expect(keepSettings(before.slice(1), after, 'kept')).toEqual(after)
})

test('turns may go one by one: no velocity falls silent that nobody chose, until the last is gone', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 6 }), fc.infiniteStream(fc.nat(99)), (turns, picks) => {
      let { bands } = padOf(turns)
      for (let left = bands.flatMap((band) => band.turns); left.length > 0; left = bands.flatMap((band) => band.turns)) {
        const before = bands
        const { bands: next, words } = withoutTurn(bands, left[picks.next().value! % left.length]!.id)
        bands = next
        expect(bands.flatMap((band) => band.turns)).toHaveLength(left.length - 1)
        expect(bands[0]!.fromVelocity).toBe(1)
        if (left.length > 1) expect(bands.every((band) => band.turns.length > 0)).toBe(true)
        expect(words !== undefined).toBe(bands.length < before.length)
      }
      expect(bands).toHaveLength(1)
    }),
  )
  const { bands } = padOf([1, 1, 2])
  const edges = bands.map((band, i) => ({ ...band, fromVelocity: [1, 40, 90][i]! }))
  expect(withoutTurn(edges, edges[1]!.turns[0]!.id).words).toBe(
    'Band 2 had no other turn and is gone; band 1 now answers velocities 1 to 89.',
  )
  expect(withoutTurn(edges, edges[0]!.turns[0]!.id).words).toBe(
    'Band 1 had no other turn and is gone; band 1 now answers velocities 1 to 89.',
  )
  expect(withoutTurn(edges, 'gone' as never).bands).toEqual(edges)
})

test('several turns that go at once leave what they leave one by one, said once', () => {
  const { bands } = padOf([1, 1, 2, 1])
  const ids = [0, 1, 2].map((i) => bands[i]!.turns[0]!.id)
  const oneByOne = ids.reduce((now, id) => withoutTurn(now, id).bands, bands)
  const { bands: left, words } = withoutTurns(bands, ids)
  expect(left).toEqual(oneByOne)
  expect(words).toMatch(/^2 bands had no other turn/)
  expect(withoutTurns(bands, [ids[2]!]).words).toBeUndefined()
})
