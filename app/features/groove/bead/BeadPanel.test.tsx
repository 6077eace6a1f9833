import { beadById, beadsOf } from '@heliaster/core/groove'
import { applyEdit } from '@heliaster/core/kit'
import type { Bead, BeadId, Groove, Kit, KitEdit } from '@heliaster/core/kit'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { aGroovyKit } from '../../../testing/a-groove'
import { useBeadHands } from '../hands/use-bead-hands'
import type { BeadHands } from '../hands/use-bead-hands'
import { BeadPanel } from './BeadPanel'

let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn((..._given: unknown[]) => undefined)
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name,
}))
jest.mock('../../../audio/engine/sound', () => ({ hearVersion: (...given: unknown[]) => mockHear(...given) }))
jest.mock('../../../audio/playing/groove-take', () => ({ takeState: { getState: () => ({ isOn: false }) }, endTake: () => undefined }))
jest.mock('../../../audio/playing/groove-player', () => ({ grooveState: { getState: () => ({ playing: true }) } }))
jest.mock('../../../ui/layout/use-is-wide', () => ({ useIsWide: () => true }))
jest.mock('../../../ui/layout/notices', () => ({ notify: () => undefined }))

let hands: BeadHands
function Shown({ ids, change }: { readonly ids: readonly string[]; readonly change?: (groove: Groove) => Groove }) {
  const [kit, setKit] = useState<Kit>(() => aGroovyKit(change))
  mockEdit = (list) => setKit((now) => list.reduce(applyEdit, now))
  hands = useBeadHands(kit, kit.grooves[0])
  return (
    <>
      <button onClick={() => hands.choose(new Set(ids as BeadId[]))}>Choose</button>
      <BeadPanel hands={hands} />
    </>
  )
}

function show(ids: readonly string[], change?: (groove: Groove) => Groove): void {
  render(<Shown ids={ids} change={change} />)
  act(() => screen.getByText('Choose').click())
}
const bead = (id = 'pad-1.4'): Bead => beadById(hands.groove, id as BeadId)!.bead
const ask = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const nudge = (name: string, key = 'ArrowRight') => fireEvent.keyDown(screen.getByRole('slider', { name }), { key })

test('nothing is shown that is not set; what is asked for sets its own field alone and is taken off again', () => {
  show(['pad-1.4'])
  expect(screen.getByText('Oar, 2')).toBeTruthy()
  expect(screen.getAllByRole('slider').map((slider) => slider.getAttribute('aria-label'))).toEqual(['Velocity'])
  nudge('Velocity')
  expect(bead()).toEqual({ id: 'pad-1.4', step: 4, velocity: 101 })
  ask('Chance')
  nudge('Chance', 'PageDown')
  expect(bead().chance).toBe(0.9)
  fireEvent.click(screen.getByRole('button', { name: 'No chance: always' }))
  expect(bead()).toEqual({ id: 'pad-1.4', step: 4, velocity: 101 })
  ask('Off its step')
  nudge('Off its step', 'ArrowLeft')
  expect(bead().offset).toBe(-0.01)
  ask('Repeats')
  nudge('Strikes')
  nudge('Rising or falling', 'PageUp')
  nudge('Drawn to its end', 'PageDown')
  expect(bead().repeats).toEqual({ count: 2, rise: 0.1, draw: -0.1 })
})

test('which turn answers is asked where all beads are of one pad', () => {
  show(['pad-1.4', 'pad-1.8'])
  expect(screen.getByRole('button', { name: 'Turn' })).toBeTruthy()
  cleanup()
  show(['pad-1.4', 'pad-2.4'])
  expect([screen.queryByRole('button', { name: 'Turn' }), screen.getByText('2 beads of 2 strings').textContent]).toEqual([null, '2 beads of 2 strings']) // prettier-ignore
})

test('while several are made louder it says by how much, and begins at none again', () => {
  show(['pad-1.4', 'pad-1.8'])
  const slider = screen.getByRole('slider', { name: 'All louder or softer by' })
  Element.prototype.setPointerCapture = () => undefined
  const now = () => slider.getAttribute('aria-valuenow')
  const at = (type: string, clientX: number) =>
    act(() => void slider.dispatchEvent(Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY: 0 }), { pointerId: 1, pointerType: 'mouse' }))) // prettier-ignore
  expect(now()).toBe('0')
  at('pointerdown', 0)
  at('pointermove', 40)
  expect(now()).not.toBe('0')
  at('pointerup', 40)
  expect(now()).toBe('0')
})

test('velocities go from 1 to 127; several go up and down by as much as there is', () => {
  show(['pad-1.4'])
  nudge('Velocity', 'Home')
  expect(bead().velocity).toBe(1)
  nudge('Velocity', 'End')
  expect(bead().velocity).toBe(127)
  cleanup()
  show(['pad-1.4', 'pad-1.8'])
  const slider = screen.getByRole('slider', { name: 'All louder or softer by' })
  expect(['aria-valuemin', 'aria-valuemax'].map((name) => slider.getAttribute(name))).toEqual(['-100', '100'])
})

test('laps are ticked in a row of so many; the row grows and shrinks, and never is without a tick', () => {
  show(['pad-1.4'])
  ask('Laps')
  fireEvent.click(within(screen.getByRole('group', { name: 'Sounds in laps' })).getByRole('checkbox', { name: '3' }))
  expect(bead().when).toEqual({ laps: { of: 4, in: [1, 3] } })
  fireEvent.click(screen.getByRole('checkbox', { name: '1' }))
  nudge('Of so many laps', 'ArrowLeft')
  nudge('Of so many laps', 'ArrowLeft')
  expect(bead().when).toEqual({ laps: { of: 2, in: [1] } })
  ask('In every lap')
  expect(bead().when).toBeUndefined()
})

test('after or unless any other bead of any string; turned over, and left', () => {
  show(['pad-1.4'])
  ask('After or unless')
  ask('Choose a bead')
  const sheet = screen.getByRole('dialog')
  expect(within(sheet).getAllByRole('radio')).toHaveLength(beadsOf(hands.groove).length - 1)
  fireEvent.click(within(sheet).getAllByRole('radio').at(-1)!)
  expect(bead().when).toEqual({ after: 'pad-2.12' })
  expect(screen.getByRole('button', { name: 'Hull, 4' })).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Unless' }))
  expect(bead().when).toEqual({ unless: 'pad-2.12' })
  ask('Whatever other beads did')
  expect(bead().when).toBeUndefined()
})

test('a turn of its pad, a clip of another pad, and parameters for it alone', () => {
  show(['pad-1.4'])
  ask('Turn')
  fireEvent.click(screen.getByRole('radio', { name: 'Turn 1' }))
  expect(bead().turn).toBe(hands.kit.pads[0].bands[0].turns[0].id)
  ask('Another clip')
  fireEvent.click(screen.getAllByRole('radio', { name: '1' })[0]!)
  expect(bead().clip).toMatchObject({ startFrame: 0, endFrame: 100 })
  ask('Parameters')
  ask('A parameter for it alone')
  fireEvent.click(within(screen.getByRole('dialog')).getByRole('radio', { name: 'Tuning' }))
  nudge('Tuning')
  expect(bead().locks).toEqual([{ param: 'tuneCents', value: 1, mode: 'set' }])
  ask("Tuning as its pad's")
  expect(bead().locks).toBeUndefined()
})

test('a bead with a condition is heard when it is asked for, whatever its laps say, as it would sound', () => {
  show(['pad-1.4'], (groove) => ({ ...groove, strings: groove.strings.map((string) => ({ ...string, beads: string.beads.map((one) => ({ ...one, when: { laps: { of: 4, in: [4] } }, locks: [{ param: 'pan', value: -1, mode: 'set' }] })) })) })) // prettier-ignore
  ask('Hear this bead')
  expect(mockHear).toHaveBeenCalledTimes(1)
  expect(mockHear.mock.lastCall![0]).toMatchObject({ own: { values: { pan: -1 } } })
  expect(mockHear.mock.lastCall![2]).toBe(100)
})

test('several are made louder together, moved, ramped between two values, drawn within bounds, and removed', () => {
  show(['pad-1.4', 'pad-1.8', 'pad-2.4'])
  expect(screen.getByText('3 beads of 2 strings')).toBeTruthy()
  nudge('All louder or softer by', 'PageUp')
  expect([bead('pad-1.4').velocity, bead('pad-2.4').velocity]).toEqual([110, 70])
  ask('Later')
  expect([bead('pad-1.4').step, bead('pad-2.4').step]).toEqual([5, 5])
  ask('Ramp')
  expect([bead('pad-1.4').velocity, bead('pad-1.8').velocity, bead('pad-2.4').velocity]).toEqual([40, 110, 40])
  fireEvent.click(screen.getByRole('radio', { name: 'Chance' }))
  ask('At random')
  for (const { bead: one } of beadsOf(hands.groove)) {
    if (['pad-1.4', 'pad-1.8', 'pad-2.4'].includes(one.id)) expect(one.chance).toBeGreaterThanOrEqual(0.25)
    else expect(one.chance).toBeUndefined()
  }
  ask('Half the time')
  expect([bead('pad-1.4').step, bead('pad-1.8').step]).toEqual([5, 7])
  ask('Remove 3 beads')
  expect(beadsOf(hands.groove)).toHaveLength(3)
  expect(screen.queryByRole('region', { name: 'Chosen beads' })).toBeNull()
})
