import { AS_IT_COMES, MEANT, velocityCurveSchema, velocityThrough } from '@heliaster/core/hands'
import type { VelocityCurve } from '@heliaster/core/hands'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { handSettings, settingsOfInput } from '../../../audio/playing/hands/hand-settings'
import { handsState } from '../../../audio/playing/hands/hands'
import { CurvePanel } from './CurvePanel'
import { CURVE_STARTS, startOf, withOneMore } from './curve-starts'

jest.mock('../../../audio/engine/sound', () => ({ sound: { getState: () => ({}) }, kitNow: () => undefined, strikePad: jest.fn(), releasePad: jest.fn(), onSounded: jest.fn() })) // prettier-ignore

const DOCK = 'Dock pads'
const curve = (): VelocityCurve => settingsOfInput(DOCK).curve
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
let count = 0
const strike = (came: number) =>
  act(() => handsState.setState({ strokes: { [DOCK]: { came, velocity: velocityThrough(curve(), came), count: ++count } } }))

beforeEach(() => {
  handSettings.setState({ inputs: {} })
  handsState.setState({ strokes: {} })
})

test('the last strike is told as it came and as it sounded', () => {
  render(<CurvePanel input={DOCK} />)
  strike(40)
  expect(screen.getByRole('status').textContent).toBe('The last strike came as 40 and sounded as 40.')
  fireEvent.click(screen.getByRole('radio', { name: 'For a light hand' }))
  strike(44)
  expect(screen.getByRole('status').textContent).toContain('sounded as 84')
})

test('twelve strikes teach the curve, which can be put back', () => {
  render(<CurvePanel input={DOCK} />)
  press('Teach it')
  for (const [words, came] of [['softly', 12], ['at middle strength', 30], ['hard', 55]] as const)
    for (let i = 0; i < 4; i++) {
      expect(screen.getByRole('status').textContent).toContain(`Strike ${words}, 4 times: ${i} of 4`)
      strike(came)
    }
  expect([12, 30, 55].map((came) => velocityThrough(curve(), came))).toEqual(Object.values(MEANT))
  press('Put the curve back')
  expect(curve()).toEqual(AS_IT_COMES)
}) // prettier-ignore

test('strikes that are too alike are told, and it begins again; who leaves changes nothing', () => {
  render(<CurvePanel input={DOCK} />)
  press('Teach it')
  for (let i = 0; i < 12; i++) strike(60)
  expect(screen.getByRole('status').textContent).toMatch(/too alike to tell apart/)
  strike(20)
  expect(screen.getByRole('status').textContent).toContain('Strike softly, 4 times: 1 of 4')
  press('Leave the curve as it is')
  expect(curve()).toEqual(AS_IT_COMES)
  expect(screen.getByRole('button', { name: 'Teach it' })).toBeTruthy()
})

test('points are moved by keys and typed, added in the widest stretch and removed down to two', () => {
  render(<CurvePanel input={DOCK} />)
  const point = (n: number, of: number) => screen.getByRole('slider', { name: `Point ${n} of ${of}` })
  fireEvent.keyDown(point(1, 2), { key: 'ArrowUp', shiftKey: true })
  fireEvent.keyDown(point(1, 2), { key: 'ArrowRight' })
  expect(curve().points[0]).toEqual({ at: 2, to: 11 })
  press('One more point')
  expect(curve().points).toHaveLength(3)
  const field = screen.getByRole('textbox', { name: /Sounds as/ })
  fireEvent.change(field, { target: { value: '900' } })
  fireEvent.blur(field)
  expect(curve().points[1]!.to).toBe(127)
  press('Remove this point')
  expect(screen.getByRole('button', { name: 'Remove this point' }).getAttribute('aria-disabled')).toBe('true')
  expect(velocityCurveSchema.safeParse(curve()).success).toBe(true)
})

test('each beginning is known again, and one more point never breaks the curve', () => {
  for (const { value, points } of CURVE_STARTS) {
    expect(startOf({ points: [...points], steps: 3 })).toBe(value)
    let grown: VelocityCurve = { points: [...points], steps: 0 }
    for (let more = withOneMore(grown, 8); more; more = withOneMore(grown, 8)) grown = more.curve
    expect(grown.points).toHaveLength(8)
    expect(velocityCurveSchema.safeParse(grown).success).toBe(true)
  }
  expect(withOneMore({ points: [{ at: 1, to: 1 }, { at: 2, to: 2 }], steps: 0 }, 8)).toBeUndefined() // prettier-ignore
})
