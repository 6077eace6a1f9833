import { clipsOfPad, createRay, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { asBands } from '@heliaster/core/place'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { after, aKitOf, aPad } from '../../../testing/a-kit'
import { TakeApart } from '../pad/TakeApart'
import { leftOverByTakingApart, partsOf, takeApartEdits } from './take-apart'

let made: KitEdit[] = []
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => void (made = edits) }))

const far = createRay(makeId, 'Far')
const layered: Pad = { ...aPad(4, asBands), own: { name: 'Hull', values: { pan: 0.3 } } }
const rayed: Pad = { ...layered, rays: [...layered.rays, far], bands: layered.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: { ...turn.clips, [far.id]: Object.values(turn.clips)[0]! } })) })) } // prettier-ignore
const kit: Kit = aKitOf(rayed, { ...aPad(1), notes: [41], own: { name: 'Tarp' } })
const apart = (by: Parameters<typeof takeApartEdits>[2]) => after(kit, takeApartEdits(kit, kit.pads[0]!, by))
const names = ({ pads }: Kit) => pads.map(({ own }) => own.name)
const clipCount = (of: Kit) => of.pads.reduce((sum, pad) => sum + clipsOfPad(pad).length, 0)

test.each(['bands', 'turns', 'rays'] as const)('%s become pads of their own: nothing is lost or doubled, each keeps what was set', (by) => {
  const parts = apart(by)
  const count = partsOf(kit.pads[0]!)[by]
  expect(parts.pads).toHaveLength(kit.pads.length + count - 1)
  expect(clipCount(parts)).toBe(clipCount(kit))
  const own = parts.pads.slice(0, count)
  expect(own.map((pad) => padSettings(parts, pad).values.pan)).toEqual(own.map(() => 0.3))
  expect(new Set(parts.pads.flatMap(({ notes }) => notes)).size).toBe(parts.pads.flatMap(({ notes }) => notes).length)
  const ids = parts.pads.flatMap((pad) => [pad.id as string, ...pad.bands.flatMap((band) => [band.id as string, ...band.turns.map(({ id }) => id as string)])]) // prettier-ignore
  expect(new Set(ids).size).toBe(ids.length)
  expect(names(parts).at(-1)).toBe('Tarp')
})

test('they are called by what they are', () => {
  expect(names(apart('bands'))).toEqual(['Hull 1', 'Hull 2', 'Hull 3', 'Hull 4', 'Tarp'])
  expect(names(apart('rays'))).toEqual([`Hull, ${rayed.rays[0]!.name}`, 'Hull, Far', 'Tarp'])
  expect(
    apart('bands')
      .pads.slice(0, 4)
      .every(({ bands }) => bands.length === 1 && bands[0]!.fromVelocity === 1),
  ).toBe(true)
})

test('where there is no room for all, that is said before', () => {
  const full = { ...kit, pads: [...kit.pads, ...Array.from({ length: 124 }, () => aPad(0))] }
  expect(leftOverByTakingApart(full, full.pads[0]!, 'bands')).toBe('A kit holds 128 pads: the last 1 would be left out.')
  expect(after(full, takeApartEdits(full, full.pads[0]!, 'bands')).pads).toHaveLength(128)
})

test('only what there are several of is offered', () => {
  const { rerender } = render(<TakeApart kit={kit} pad={kit.pads[1]!} />)
  expect(screen.getByRole('button', { name: 'Take apart' }).getAttribute('aria-disabled')).toBe('true')
  rerender(<TakeApart kit={kit} pad={kit.pads[0]!} />)
  fireEvent.click(screen.getByRole('button', { name: 'Take apart' }))
  fireEvent.click(screen.getByRole('button', { name: '2 rays, a pad each' }))
  expect(names(after(kit, made))).toContain('Hull, Far')
  expect(screen.queryByRole('dialog')).toBeNull()
})
