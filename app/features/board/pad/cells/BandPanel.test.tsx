import { applyEdit } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { asBands, cellsOf } from '@heliaster/core/place'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { aKitOf, aPad } from '../../../../testing/a-kit'
import { BandPanel } from './BandPanel'

let mockEdit: (edits: KitEdit[]) => void
const mockStrike = jest.fn()
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../audio/engine/sound', () => ({ strikePad: (strike: unknown) => mockStrike(strike) }))
jest.mock('./loudness-edges', () => ({ bandsByLoudness: async () => undefined }))

let kit: Kit

function Shown({ index }: { readonly index: number }) {
  const [doc, setDoc] = useState(() => aKitOf({ ...aPad(3, asBands), spread: 'even' }))
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  const [pad] = doc.pads
  const cells = cellsOf(pad)!
  const band = cells.bands[index]
  return band ? <BandPanel kit={doc} pad={pad} cells={cells} band={band} gesture={{ set: mockEdit, end: () => undefined }} /> : null
}
const bands = () => kit.pads[0].bands

test('a band says its velocities, is struck in their middle, and has a level', () => {
  render(<Shown index={1} />)
  const [, band, above] = bands()
  expect(screen.getByText(`Band 2, velocity ${band.fromVelocity} to ${above.fromVelocity - 1}`)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Strike it' }))
  const [{ velocity }] = mockStrike.mock.lastCall as [{ velocity: number }]
  expect(velocity).toBeGreaterThanOrEqual(band.fromVelocity)
  expect(velocity).toBeLessThan(above.fromVelocity)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Level of the band' }), { key: 'ArrowRight' })
  expect(bands()[1].values).toMatchObject({ gainDb: 0.1 })
})

test('a band fades in over the one below, and only then asks for what; the lowest has none below', () => {
  const { unmount } = render(<Shown index={1} />)
  expect(screen.queryByRole('radiogroup', { name: 'The fade is for' })).toBeNull()
  fireEvent.keyDown(screen.getByRole('slider', { name: /^Fades in over/ }), { key: 'ArrowRight' })
  expect(bands()[1].blendVelocities).toBe(1)
  fireEvent.click(screen.getByRole('radio', { name: 'Like clips' }))
  expect(bands()[1].blendLaw).toBe('linear')
  unmount()
  render(<Shown index={0} />)
  expect(screen.queryByRole('slider', { name: /^Fades in over/ })).toBeNull()
  expect(screen.queryByRole('button', { name: 'Merge with the one below' })).toBeNull()
})

test('merged with the one below, its turns go there and the others spread evenly again', async () => {
  render(<Shown index={1} />)
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Merge with the one below' })))
  expect(bands().map(({ turns }) => turns.length)).toEqual([2, 1])
  expect(bands().map(({ fromVelocity }) => fromVelocity)).toEqual([1, 65])
})

test('a band is removed with its turns', async () => {
  render(<Shown index={2} />)
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Remove the band and its 1 turns' })))
  expect(bands().map(({ turns }) => turns.length)).toEqual([1, 1])
  expect(bands()[0].fromVelocity).toBe(1)
})
