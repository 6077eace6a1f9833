import { asBands } from '@heliaster/core/place'
import { fireEvent, render, screen } from '@testing-library/react'

import { aKitOf, aPad } from '../testing/a-kit'
import { handSettings } from '../audio/playing/hands/hand-settings'
import { cameFrom, PadFace, velocityAt } from './PadFace'
import type { Touch } from '../ui/pointer/use-touches'
import { session } from './session'

const mockStrike = jest.fn()
const mockRelease = jest.fn()
let mockPlayer: object | undefined
jest.mock('../audio/engine/sound', () => ({
  sound: { getState: () => ({ player: mockPlayer }) },
  kitNow: () => ({ tempoBpm: 120, ties: [] }),
  strikePad: (strike: unknown) => mockStrike(strike),
  releasePad: (pad: unknown, key: unknown) => mockRelease(pad, key),
}))

const kit = aKitOf(aPad(2), { ...aPad(1), notes: [41] })
const [pad] = kit.pads

beforeEach(() => {
  jest.clearAllMocks()
  mockPlayer = undefined
  Element.prototype.setPointerCapture = () => undefined
  session.setState({ padId: undefined })
})

/** Fingers as the browser tells of them; jsdom has no pointers of its own. */
function finger(type: string, on: Element, pointerId: number, x: number) {
  const event = new MouseEvent(type, { bubbles: true, clientX: x, clientY: 50 })
  fireEvent(on, Object.defineProperty(event, 'pointerId', { value: pointerId }))
}

test('a pad says its name and key, shows its note, and is pressed by keys', () => {
  render(<PadFace kit={kit} pad={pad} index={0} size={100} chosen withNote withKey />)
  const face = screen.getByRole('button', { name: 'Oar, key Z' })
  expect(face.getAttribute('aria-pressed')).toBe('true')
  expect(screen.getByText(/E\d Z/)).toBeTruthy()
  fireEvent.keyDown(face, { key: 'Enter' })
  fireEvent.keyDown(face, { key: ' ', repeat: true })
  fireEvent.keyDown(face, { key: 'a' })
  expect(mockStrike).toHaveBeenCalledTimes(1)
  expect(session.getState().padId).toBe(pad.id)
})

test('the nearer to its centre the softer; every finger is a strike of its own and is let go for itself', () => {
  render(<PadFace kit={kit} pad={pad} index={40} size={100} />)
  const face = screen.getByRole('button', { name: 'Oar' })
  face.getBoundingClientRect = () => ({ left: 0, top: 0, width: 100, height: 100 }) as DOMRect
  finger('pointerdown', face, 1, 55)
  finger('pointerdown', face, 2, 99)
  const [soft, hard] = mockStrike.mock.calls.map(([strike]) => strike as { velocity: number; key: number })
  expect(soft.velocity).toBeLessThan(hard.velocity)
  expect(soft.key).not.toBe(hard.key)
  finger('pointerup', face, 1, 55)
  expect(mockRelease).toHaveBeenLastCalledWith(pad.id, soft.key)
  finger('pointercancel', face, 2, 99)
  expect(mockRelease).toHaveBeenLastCalledWith(pad.id, hard.key)
})

test('a strike nearer the star’s centre is softer, and each ring gives the velocities of its band', () => {
  const single = aPad(1)
  const layered = aPad(4, asBands)
  expect(velocityAt(single, 0)).toBeLessThan(velocityAt(single, 0.6))
  expect(velocityAt(single, 1)).toBe(127)
  expect(velocityAt(layered, 1)).toBe(127)
  for (let share = 0, last = 0; share <= 1; share += 0.02) {
    const velocity = velocityAt(layered, share)
    expect(velocity).toBeGreaterThanOrEqual(last)
    last = velocity
  }
})

test('where that is wished a finger strikes as hard as it presses; a mouse cannot tell', () => {
  const touch = (pointerType: string, pressure: number) =>
    ({ id: 1, x: 50, y: 50, width: 100, height: 100, event: { pointerType, pressure } }) as unknown as Touch
  expect(cameFrom(pad, touch('pen', 1))).toBe(velocityAt(pad, 0))
  handSettings.setState({ fingers: 'pressure' })
  expect([cameFrom(pad, touch('pen', 1)), cameFrom(pad, touch('touch', 0.5)), cameFrom(pad, touch('pen', 0.001))]).toEqual([127, 64, 1])
  expect([cameFrom(pad, touch('mouse', 0.5)), cameFrom(pad, touch('touch', 0))]).toEqual([velocityAt(pad, 0), velocityAt(pad, 0)])
  handSettings.setState({ fingers: 'place' })
})

test('a pad that goes while it is held is let go', () => {
  const { unmount } = render(<PadFace kit={kit} pad={pad} index={0} size={100} />)
  finger('pointerdown', screen.getByRole('button'), 4, 55)
  expect(mockRelease).not.toHaveBeenCalled()
  unmount()
  expect(mockRelease).toHaveBeenCalledTimes(1)
})

test('two pads on one note say so on both faces', () => {
  const shared = aKitOf({ ...aPad(1), notes: [48] }, { ...aPad(1), id: 'other' as never, notes: [50, 48], own: { name: 'Buoy' } })
  const [one, other] = shared.pads
  render(
    <>
      <PadFace kit={shared} pad={one!} index={0} size={80} withNote />
      <PadFace kit={shared} pad={other!} index={1} size={80} withNote />
    </>,
  )
  expect(screen.getByRole('button', { name: /^Oar.*, note C3 shared with Buoy$/ })).toBeTruthy()
  expect(screen.getByText('C3 shared')).toBeTruthy()
  expect(screen.getByText('D3')).toBeTruthy() // its first note is its own
})

test('a strike that is slid outward repeats in the tempo of the kit, as hard as the ring it has come to, until the finger is lifted', () => {
  jest.useFakeTimers()
  let frame = 48000
  render(<PadFace kit={kit} pad={pad} index={40} size={100} />)
  const face = screen.getByRole('button', { name: 'Oar' })
  face.getBoundingClientRect = () => ({ left: 0, top: 0, width: 100, height: 100 }) as DOMRect
  const pass = (ms: number) => {
    for (let at = 0; at < ms; at += 20) {
      frame += 960
      jest.advanceTimersByTime(20)
    }
  }
  const repeats = () =>
    mockStrike.mock.calls.map(([strike]) => strike as { frame?: number; velocity: number }).filter((strike) => strike.frame !== undefined)
  finger('pointerdown', face, 7, 55)
  mockPlayer = { sampleRateHz: 48000, frameNow: () => frame, grooveBeat: () => -1 }
  finger('pointermove', face, 7, 58)
  pass(300)
  expect(repeats()).toEqual([])
  const from = frame
  finger('pointermove', face, 7, 80)
  pass(400)
  finger('pointermove', face, 7, 180) // beyond the rim
  pass(400)
  // Four in a beat of half a second: 6000 frames each.
  expect(repeats().map((strike) => strike.frame! - from)).toEqual([6000, 12000, 18000, 24000, 30000, 36000].slice(0, repeats().length))
  expect(repeats().length).toBeGreaterThanOrEqual(6)
  expect(repeats().at(-1)!.velocity).toBe(127)
  expect(repeats()[0]!.velocity).toBeLessThan(127)
  finger('pointerup', face, 7, 180)
  const count = repeats().length
  pass(400)
  expect(repeats()).toHaveLength(count)
  jest.useRealTimers()
})

test('on a pad that goes on a finger leads it: across is the wheel, upward presses, let go it presses no more', () => {
  const acts: unknown[][] = []
  const note = (name: string) => (...given: unknown[]) => acts.push([name, ...given]) // prettier-ignore
  mockPlayer = {
    moveControl: note('move'),
    press: note('press'),
    frameNow: () => 0,
    grooveBeat: () => -1,
    sampleRateHz: 48000,
    clock: { burstFrames: () => 0 },
  }
  const going = { ...pad, own: { ...pad.own, mode: 'hold' as const, values: { rollSeconds: 0.04 } } }
  render(<PadFace kit={aKitOf(going)} pad={going} index={40} size={100} />)
  const face = screen.getByRole('button', { name: 'Oar' })
  face.getBoundingClientRect = () => ({ left: 0, top: 0, width: 100, height: 100 }) as DOMRect
  finger('pointerdown', face, 1, 20)
  expect(acts).toEqual([['move', 1, 25], ['press', pad.id, 0.5]]) // prettier-ignore
  expect(mockStrike).toHaveBeenCalledTimes(1)
  finger('pointermove', face, 1, 250)
  expect(acts.slice(2)).toEqual([['move', 1, 127], ['press', pad.id, 0.5]]) // prettier-ignore
  finger('pointerup', face, 1, 250)
  expect(acts.at(-1)).toEqual(['press', pad.id, 0])
  expect(mockStrike).toHaveBeenCalledTimes(1) // it is not repeated by sliding out
})
