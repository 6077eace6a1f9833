import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { after, aKitOf, aPad } from '../../../../testing/a-kit'
import { GoesOn } from './GoesOn'
import { goingOnEdits } from './going-on'

let mockEdit: (edits: KitEdit[]) => void
jest.mock('../../../../kit-view', () => ({ editKit: (_: unknown, edits: KitEdit[]) => mockEdit(edits) }))

/** A kit of one pad with a clip of five seconds. */
function cloth(): Kit {
  const pad = aPad(1)
  const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), endFrame: 240_000 }])) })) })) // prettier-ignore
  return aKitOf({ ...pad, bands })
}

let kit: Kit
const done = jest.fn()
function Shown() {
  const [doc, set] = useState(kit)
  kit = doc
  mockEdit = (edits) => set((now) => edits.reduce(applyEdit, now))
  return <GoesOn kit={doc} pad={doc.pads[0]!} gesture={{ set: mockEdit, end: done }} />
}
const settings = () => padSettings(kit, kit.pads[0]!)

test('one tap makes a pad go on: held, in short soft strikes, led over its whole clip by the wheel and by pressing', () => {
  kit = cloth()
  render(<Shown />)
  expect(screen.queryByRole('slider')).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Let it go on while held' }))
  const { mode, values, responses, envelopes } = settings()
  expect([mode, values.rollSeconds]).toEqual(['hold', 0.04])
  expect(envelopes.level.points.at(-1)).toMatchObject({ seconds: 0.14, value: 0 })
  const amountOf = (from: string, param: string) => responses.find((one) => one.from.kind === from && one.to[0]!.param === param)?.amount
  expect(amountOf('wheel', 'startSeconds')).toBeCloseTo(5 - 0.14, 3)
  expect(amountOf('keyPressure', 'rollSeconds')).toBeLessThan(0)
  expect(amountOf('keyPressure', 'gainDb')).toBeGreaterThan(0)
  expect(amountOf('chance', 'startSeconds')).toBeGreaterThan(0)
  expect(screen.getByText(/A finger that moves on its face leads it/)).toBeTruthy()
})

test('it is one step, comes back whole, and done twice nothing answers twice', () => {
  const before = cloth()
  const once = after(before, goingOnEdits(before, before.pads[0]!))
  const twice = after(once, goingOnEdits(once, once.pads[0]!))
  const count = (of: Kit) => padSettings(of, of.pads[0]!).responses.length
  expect(count(twice)).toBe(count(once))
})

test('how close strikes follow is set by a slider where a pad is held; at 0 it sounds once', () => {
  kit = cloth()
  const [pad] = kit.pads as [Kit['pads'][number]]
  kit = { ...kit, pads: [{ ...pad, own: { ...pad.own, mode: 'hold' } }] }
  render(<Shown />)
  const slider = screen.getByRole('slider', { name: 'While held, strikes follow every' })
  fireEvent.keyDown(slider, { key: 'ArrowRight' })
  expect(settings().values.rollSeconds).toBeCloseTo(0.001, 6)
  expect(done).toHaveBeenCalled()
  fireEvent.keyDown(slider, { key: 'Home' })
  expect(settings().values.rollSeconds).toBe(0)
  expect(screen.getByRole('button', { name: 'Let it go on while held' })).toBeTruthy()
})
