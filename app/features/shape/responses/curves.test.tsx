import { applyEdit, createKit, createPad, createRay, padSettings, responseTo } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { handsState, takeMessage } from '../../../audio/playing/hands/hands'
import { session } from '../../../kit-view/session'
import { aDrawnHit as drawn } from '../../../testing/a-drawn-hit'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { QuickShape } from '../quick/QuickShape'
import { targetOf } from '../whom/target'
import { mostOf, targetOf as whatOf } from './mover-words'
import { Movers } from './Movers'
import { softestStart } from './softest-start'

const makeId = testIds(8)
const wheel = { ...responseTo('velocity', 'gainDb', 12), id: 'wheel', from: { kind: 'wheel' as const } }
const later = { ...responseTo('velocity', 'startSeconds', -0.02), id: 'later' }
const pad = { ...createPad(makeId, { responses: [responseTo('velocity', 'gainDb', 24), wheel, later] }, 36) }
let kit: Kit

function Shown({ isQuick = false }: { readonly isQuick?: boolean }) {
  const [doc, setDoc] = useState<Kit>(kit)
  kit = doc
  const edit = (edits: KitEdit[]) => setDoc((now) => edits.reduce(applyEdit, now))
  const now = doc.pads[0]!
  if (isQuick)
    return <QuickShape kit={doc} pad={now} target={targetOf(doc, now, { kind: 'pad' })} drawn={drawn} onEdits={edit} onResponses={edit} onDone={() => undefined} />
  return <Movers kit={doc} pad={now} onSlide={edit} onDone={() => undefined} />
} // prettier-ignore

beforeEach(() => {
  kit = { ...createKit(makeId, 'Shape'), pads: [pad] }
  handsState.setState({ controls: {}, keyPressures: {} })
  session.setState({ lit: {} })
})

const curve = (name: string) => screen.getByRole('slider', { name: `${name}: its curve` })
const responses = () => kit.pads[0]!.own.responses!
const dotOf = (name: string) => curve(name).querySelector('circle')

test('a curve is bent by keys, and straight again it leaves no trace', () => {
  render(<Shown />)
  const mine = () => curve('Softer strikes move the level')
  fireEvent.keyDown(mine(), { key: 'ArrowUp', shiftKey: true })
  expect(responses()[0]!.curve!.points[1]!.bend).toBe(-0.25)
  expect(mine().getAttribute('aria-valuetext')).toBe('early, 0.25')
  fireEvent.keyDown(mine(), { key: 'ArrowDown', shiftKey: true })
  expect(responses()[0]).toEqual(pad.own.responses![0])
  for (let i = 0; i < 6; i++) fireEvent.keyDown(mine(), { key: 'ArrowDown', shiftKey: true })
  expect(mine().getAttribute('aria-valuetext')).toBe('late, 1')
})

test('a dot shows where each stands: the last strike of this pad, and the wheel as it was moved', () => {
  render(<Shown />)
  expect([dotOf('Softer strikes move the level'), dotOf('The wheel moves the level')]).toEqual([null, null])
  act(() => session.setState({ lit: { [pad.id]: { band: 0, turn: 0, at: 1, velocity: 127 } } }))
  act(() => takeMessage('deck', Uint8Array.from([0xb0, 1, 0])))
  const [atFull, atRest] = [dotOf('Softer strikes move the level')!, dotOf('The wheel moves the level')!]
  expect(Number(atFull.getAttribute('cx'))).toBeGreaterThan(50)
  expect(Number(atRest.getAttribute('cx'))).toBeLessThan(10)
  act(() => takeMessage('deck', Uint8Array.from([0xb0, 1, 127])))
  expect(Number(dotOf('The wheel moves the level')!.getAttribute('cx'))).toBeGreaterThan(50)
})

test('a new response may move one ray alone, and says so', () => {
  const ray = createRay(makeId, 'Deck')
  kit = { ...kit, pads: [{ ...pad, rays: [...pad.rays, ray] }] }
  render(<Shown />)
  fireEvent.click(screen.getByRole('button', { name: 'Let something move it' }))
  fireEvent.click(screen.getByRole('radio', { name: ray.name }))
  fireEvent.click(screen.getByRole('button', { name: 'Add' }))
  expect(responses()[3]!.to).toEqual([{ param: 'gainDb', ray: ray.id }])
  expect(screen.getByText(`Only the ray ${ray.name}.`)).toBeTruthy()
})

test('where the softest begins is marked on the wave and moved there; without such a response there is no mark', () => {
  const { unmount } = render(<Shown isQuick />)
  const mark = () => screen.getByRole('slider', { name: 'Start of the softest' })
  expect(mark().getAttribute('aria-valuetext')).toBe('20.0 ms')
  fireEvent.keyDown(mark(), { key: 'ArrowRight', shiftKey: true })
  expect(responses()[2]!.amount).toBeCloseTo(-0.03, 6)
  for (let i = 0; i < 9; i++) fireEvent.keyDown(mark(), { key: 'ArrowLeft', shiftKey: true })
  expect(responses()[2]!.amount).toBe(0)
  expect(softestStart(padSettings(kit, kit.pads[0]!), undefined)).toBe(0)
  unmount()
  kit = { ...kit, pads: [{ ...pad, own: { ...pad.own, responses: [] } }] }
  render(<Shown isQuick />)
  expect(screen.queryByRole('slider', { name: 'Start of the softest' })).toBeNull()
})

test('where strikes begin is moved over the whole of a long clip, and of a short one as far as it is offered', () => {
  const start = whatOf('startSeconds')!
  const kitWith = (endFrame: number) => {
    const pad = aPad(1)
    const [turn] = pad.bands[0]!.turns
    const clips = Object.fromEntries(Object.entries(turn!.clips).map(([ray, clip]) => [ray, { ...(clip as object), endFrame }])) as never
    return aKitOf({ ...pad, bands: [{ ...pad.bands[0]!, turns: [{ ...turn!, clips }] }] })
  }
  const [short, long] = [kitWith(2400), kitWith(240_000)]
  expect(mostOf(short, short.pads[0]!, start)).toBe(start.most)
  expect(mostOf(long, long.pads[0]!, start)).toBe(5000)
  expect(mostOf(long, long.pads[0]!, whatOf('gainDb')!)).toBe(whatOf('gainDb')!.most)
})
