import { act, fireEvent, render, screen } from '@testing-library/react'

import type { Sounded } from '../../../audio/engine/player'
import { ALL_SOUND } from '../../../audio/engine/solo'
import { forgetStrikes, recentStrikes, rememberStops, rememberStrikes } from '../../../kit-view/recent-strikes'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { WhyButton } from './WhySheet'

const [hull, oar] = ['Hull', 'Oar'].map((name) => ({ ...aPad(1), own: { name } }))
const kit = aKitOf(hull!, oar!)
const strike = (fields: Partial<Sounded>) =>
  ({ frame: 0, padId: hull!.id, struckId: hull!.id, cameBy: 'hand', velocity: 90, band: 0, turn: 0, voices: 1, chokedIds: [], roomIds: [], fullLimits: [], ...fields }) as unknown as Sounded // prettier-ignore
const open = () => fireEvent.click(screen.getByRole('button', { name: /^Why did that sound/ }))
beforeEach(forgetStrikes)

test('before anything was struck it says so; what is struck then stands on top, with what it stopped', () => {
  render(<WhyButton />)
  open()
  expect(screen.getByText(/^Nothing was struck yet/)).toBeTruthy()
  act(() => rememberStrikes(kit, [strike({})], ALL_SOUND))
  expect(screen.getByText('Hull sounded by hand at 90: band 1, turn 1.')).toBeTruthy()
  expect(screen.getByText('It silenced nothing, and nothing stopped by it.')).toBeTruthy()
  act(() => rememberStrikes(kit, [strike({ padId: oar!.id, struckId: oar!.id, roomIds: [hull!.id], fullLimits: ['kit'] })], ALL_SOUND))
  const order = screen.getAllByText(/sounded by hand/).map((one) => one.textContent)
  expect(order.map((words) => words!.slice(0, 4))).toEqual(['Oar ', 'Hull'])
  expect(screen.getByText('The oldest strike of Hull stopped to make room: the limit of the kit was full.')).toBeTruthy()
})

test('twenty strikes are kept, the newest first; strikes of pads that are only heard are none of the kit’s', () => {
  rememberStrikes(kit, Array.from({ length: 15 }, (_, i) => strike({ velocity: 1 + i })), ALL_SOUND) // prettier-ignore
  rememberStrikes(kit, [...Array.from({ length: 15 }, (_, i) => strike({ velocity: 101 + i })), strike({ padId: undefined })], ALL_SOUND) // prettier-ignore
  const { told } = recentStrikes.getState()
  expect(told).toHaveLength(20)
  expect([told[0]!, told[19]!].map((one) => 'strike' in one && one.strike.velocity)).toEqual([115, 11])
})

test('a strike that made no sound says why, as the pad itself does', () => {
  const muted = { ...kit, pads: kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, mute: true } })) }
  rememberStrikes(muted, [strike({ voices: 0 })], ALL_SOUND)
  render(<WhyButton />)
  open()
  expect(screen.getByText('Hull was struck by hand at 90, and nothing of it sounds: the pad is muted.')).toBeTruthy()
})

test('what stopped without a strike is told where it came between them, and only what stops anything', () => {
  const holding = { ...kit, pads: kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, mode: 'hold' as const } })) }
  rememberStrikes(holding, [strike({ frame: 10 }), strike({ frame: 300, padId: oar!.id, struckId: oar!.id })], ALL_SOUND)
  rememberStops(holding, [{ type: 'letGo', frame: 200, padId: hull!.id, key: 1 }, { type: 'control', frame: 250, control: 4, value: 0 }, { type: 'stop', frame: 400 }]) // prettier-ignore
  render(<WhyButton />)
  open()
  const order = screen.getAllByText(/sounded by hand|stopped by hand|let go of/).map((one) => one.textContent!.slice(0, 10))
  expect(order).toEqual(['Everything', 'Oar sounde', 'Hull was l', 'Hull sound'])
})
