import fc from 'fast-check'

import { families } from '../kit'
import type { Marker, MarkerId } from '../kit'
import { firstFrame, handId, isSoundTitle, keptMarker, soundTitle } from '.'
import { foundId } from './markers'

const frames = fc.nat(100_000_000)

test('any title of a hit is known as one; what people type is not', () => {
  fc.assert(
    fc.property(fc.constantFrom(undefined, ...families), fc.double({ min: 0, max: 36000, noNaN: true }), (family, seconds) =>
      expect(isSoundTitle(soundTitle(family, seconds))).toBe(true),
    ),
  )
  for (const typed of ['', 'Kick', 'Hat 3', 'hat 3.00', 'My hat 3.00', 'Oar, high', 'Hit 1.234']) expect(isSoundTitle(typed)).toBe(false)
})

test('a hit is called by where it was first, however it was found and wherever it is moved', () => {
  fc.assert(
    fc.property(frames, frames, fc.constantFrom('found', 'grid', 'hand'), (at, moved, how) => {
      const id = how === 'hand' ? handId(at, 'a1') : how === 'found' ? foundId(at) : (`grid-${at}` as MarkerId)
      const marker = { id, frame: at, origin: 'found' as const, pinned: false, kept: false }
      const written: Marker = keptMarker(marker, { frame: moved })
      expect([firstFrame(marker), firstFrame(written)]).toEqual([at, at])
    }),
  )
  expect(firstFrame({ id: 'marker-7' as MarkerId, frame: 99 })).toBe(99)
})
