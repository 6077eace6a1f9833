import fc from 'fast-check'

import { aKit, anImpulse } from '../kit/builders'
import { bandSchema } from '../kit/kit'
import type { Band } from '../kit/kit'
import { mergeDown, moveTurn, removeBand, swapTurns } from './arrange'

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
})
