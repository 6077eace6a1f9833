import { applyEdit, noEnvelope } from '@heliaster/core/kit'
import type { Envelope, Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render as renderOnly, screen, within } from '@testing-library/react'
import { useRef, useState } from 'react'
import type { ReactElement } from 'react'
import { useStore } from 'zustand'

import { aDrawnHit as drawn } from '../../../testing/a-drawn-hit'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { layOut } from '../../../testing/lay-out'
import { targetOf } from '../whom/target'
import { chartSettings, chartView } from './chart-view'
import { ChartViewBar } from './ChartViewBar'
import { EnvelopePart } from './EnvelopePart'
import { TideChart } from './TideChart'
import { copiedPoints, useEnvelope } from './use-envelope'

const mockFollow = jest.fn()
jest.mock('./follow', () => ({ levelOf: (...all: unknown[]) => mockFollow(...all), pitchOf: (...all: unknown[]) => mockFollow(...all) }))

let kit: Kit
let steps: number

/** As documents do it: the edits of a drag are made over the state before it. */
function Bench({ canHold = false, hit = drawn }: { readonly canHold?: boolean; readonly hit?: typeof drawn }) {
  const [doc, set] = useState(kit)
  const before = useRef<Kit>(undefined)
  kit = doc
  const pad = doc.pads[0]!
  const target = targetOf(doc, pad, { kind: 'pad' })
  const settings = canHold ? { ...target.settings, mode: 'hold' as const } : target.settings
  const gesture = {
    set(edits: KitEdit[]) {
      before.current ??= doc
      set(edits.reduce(applyEdit, before.current))
    },
    end() {
      before.current = undefined
      steps++
    },
  }
  const { isFirst } = useStore(chartView)
  const work = useEnvelope(target, drawn, gesture)
  return (
    <>
      <TideChart isWide isFirst={isFirst} heightPx={200} drawn={hit} baseHz={55} shape={settings} family="kick" work={work.chart} isSnapping={chartSettings.getState().isSnapping} />
      <ChartViewBar isWide />
      <EnvelopePart kit={doc} pad={pad} target={{ ...target, settings }} work={work} drawn={drawn} baseHz={55} hasBar />
    </>
  )
} // prettier-ignore

const render = (element: ReactElement) => {
  const rendered = renderOnly(element)
  layOut(540, 200)
  return rendered
}
const of = (layer: 'level' | 'pitch' = 'level'): Envelope => kit.pads[0]!.own.envelopes?.[layer] ?? noEnvelope
/** By its role and its whole name, told directly: asking the whole page for names takes seconds here. */
const named = (role: string, name: string) => {
  const found = [...document.querySelectorAll(`[role=${role}]`)].filter((one) => one.getAttribute('aria-label') === name)
  expect([name, found.length]).toEqual([name, 1])
  return found[0]!
}
const press = (name: string) => fireEvent.click(named('button', name))
const radio = (name: string) => fireEvent.click(named('radio', name))
const check = (name: string) => fireEvent.click(named('checkbox', name))
const marks = () =>
  [...document.querySelectorAll('[role=slider]')].filter((one) => /^Point \d+ of/.test(one.getAttribute('aria-label') ?? ''))
const mark = (index: number) => marks()[index]!
const typed = (label: string, text: string) => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}
const shownIn = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value

/** The chart is 540 x 200: 20 px to the first moment, 500 to its end at 1 s; 80 px from the middle to all of a level. */
const at = (seconds: number, level: number): [number, number] => [20 + seconds * 500, 100 - level * 80]
function pointer(type: string, [clientX, clientY]: [number, number], more: object = {}): void {
  const chart = document.querySelector('[aria-label^="Tide chart"]')!
  const event = new MouseEvent(type, { bubbles: true, cancelable: true, clientX, clientY, ...more })
  fireEvent(chart, Object.assign(event, { pointerId: 1, pointerType: 'mouse' }))
}
const drag = (from: [number, number], to: [number, number], more = {}) => {
  pointer('pointerdown', from, more)
  pointer('pointermove', to, more)
  pointer('pointerup', to, more)
}

beforeAll(() => {
  Element.prototype.setPointerCapture = () => undefined
})
beforeEach(() => {
  kit = aKitOf(aPad(2), { ...aPad(1), id: 'other' as never })
  steps = 0
  copiedPoints.setState({ copied: undefined })
  chartView.setState({ isFirst: false, layer: 'level' })
  chartSettings.setState({ time: 'ms', level: '%', pitch: 'ct', isSnapping: false })
})

/** A pad whose level goes from 1 over a half at 0.4 s to nothing at 0.8 s. */
const begun = (more = {}) => {
  const points = [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.4, value: 0.5, bend: 0 }, { seconds: 0.8, value: 0, bend: 0 }] // prettier-ignore
  kit = applyEdit(kit, { type: 'setPad', padId: kit.pads[0]!.id, own: { envelopes: { level: { points, ...more } } } })
}

test('starts say what they do, and one makes an envelope for this hit', () => {
  render(<Bench />)
  press('Knock, then body')
  expect(of().points).toHaveLength(3)
  expect(of().points[2]!.seconds).toBeCloseTo(drawn.soundSeconds, 5)
  press('Remove envelope')
  expect(of().points).toEqual([])
  press('Shape the level')
  expect(of().points).toHaveLength(3)
  expect(screen.getByText('Point 2 of 3')).toBeTruthy()
})

test('while a point is held the chart is as long as it was, however long the hit becomes; let go, it shows all of it', () => {
  begun()
  const { rerender } = render(<Bench />)
  const length = () => /[\d.]+ s/.exec(document.querySelector('[aria-label^="Tide chart"]')!.getAttribute('aria-label')!)![0]
  pointer('pointerdown', at(0.4, 0.5))
  rerender(<Bench hit={{ ...drawn, seconds: 2 }} />)
  expect(length()).toBe('1.00 s')
  pointer('pointerup', at(0.4, 0.5))
  expect(length()).toBe('2.00 s')
})

test('a typed time moves what is after it; what cannot be is held, and said; every point can be reached', () => {
  begun()
  render(<Bench />)
  fireEvent.focus(mark(1))
  typed('Time of the point, ms', '3500')
  expect(of().points.map(({ seconds }) => seconds)).toEqual([0, 3.5, 3.9])
  typed('Level of the point, %', '140')
  expect(shownIn('Level of the point, %')).toBe('100.0')
  expect(screen.getByText(/0 to 100 %, so it stands/)).toBeTruthy()
  press('Next point')
  expect(screen.getByText('Point 3 of 3')).toBeTruthy()
  expect(named('button', 'Next point').getAttribute('aria-disabled')).toBe('true')
})

test('times in samples and beats, levels in dB, pitches in semitones, Hz and notes: typed and shown', () => {
  begun()
  render(<Bench />)
  fireEvent.focus(mark(1))
  press('Time of the point in ms; change the unit')
  expect(shownIn('Time of the point, samples')).toBe('17640')
  press('Time of the point in samples; change the unit')
  typed('Time of the point, beats', '0.5')
  expect(of().points[1]!.seconds).toBeCloseTo(30 / kit.tempoBpm, 4)
  press('Level of the point in %; change the unit')
  typed('Level of the point, dB', '-12')
  expect(of().points[1]!.value).toBeCloseTo(0.2512, 4)
  radio('Pitch')
  press('Shape the pitch')
  fireEvent.focus(mark(0))
  press('Pitch of the point in cents; change the unit')
  typed('Pitch of the point, semitones', '7')
  expect(of('pitch').points[0]!.value).toBe(700)
  press('Pitch of the point in semitones; change the unit')
  typed('Pitch of the point, Hz', '110')
  expect(of('pitch').points[0]!.value).toBe(1200)
  press('Pitch of the point in Hz; change the unit')
  expect(shownIn('Pitch of the point, note')).toBe('A2')
  typed('Pitch of the point, note', 'C3 -10')
  expect(of('pitch').points[0]!.value).toBe(1490)
  expect(shownIn('Pitch of the point, note')).toBe('C3 -10')
  typed('Pitch of the point, note', 'H9')
  expect(screen.getByLabelText('Pitch of the point, note').getAttribute('aria-invalid')).toBe('true')
})

test('several points are moved, stretched, lessened and taken away at once, each in one step', () => {
  begun()
  render(<Bench />)
  drag(at(0.3, 1.1), at(0.95, -0.2)) // over empty ground, round the last two
  expect(screen.getByText('2 points chosen')).toBeTruthy()
  const before = steps
  drag(at(0.4, 0.5), at(0.5, 0.6))
  expect(of().points.map(({ seconds, value }) => [seconds, value])).toEqual([[0, 1], [0.5, 0.6], [0.9, 0.1]]) // prettier-ignore
  expect(steps).toBe(before + 1)
  typed('Longer or shorter, %', '50')
  expect(of().points[2]!.seconds).toBeCloseTo(0.7, 5)
  typed('More or less, %', '200')
  expect(of().points.map(({ value }) => value)).toEqual([1, 1, 0.2])
  expect(shownIn('More or less, %')).toBe('100')
  press('Remove points')
  expect(of().points).toHaveLength(1)
})

test('on the chart: a tap makes a point, the line is bent, Shift adds to what is chosen, and a point goes to the hit', () => {
  begun()
  const { unmount } = render(<Bench />)
  drag(at(0.2, 0.75), at(0.2, 0.6))
  expect(of().points[1]!.bend).toBeLessThan(-0.1)
  drag(at(0.6, 0.8), at(0.6, 0.8))
  expect(of().points).toHaveLength(4)
  expect(of().points[2]).toMatchObject({ seconds: 0.6, value: 0.8 })
  drag(at(0.8, 0), at(0.8, 0), { shiftKey: true })
  expect(screen.getByText('2 points chosen')).toBeTruthy()
  unmount()
  begun()
  chartSettings.setState({ isSnapping: true })
  render(<Bench />)
  drag(at(0.4, 0.5), at(0.79, 0.5)) // near the end of the hit at 0.8 s, where the last point is already
  expect(of().points[1]!.seconds).toBeCloseTo(0.7999, 4)
})

test('keys on the points: arrows, all of them, copied, pasted, taken away', () => {
  begun()
  render(<Bench />)
  fireEvent.focus(mark(1))
  fireEvent.keyDown(mark(1), { key: 'ArrowRight', shiftKey: true })
  fireEvent.keyDown(mark(1), { key: 'ArrowDown' })
  expect(of().points[1]).toMatchObject({ seconds: 0.41, value: 0.49 })
  fireEvent.keyDown(mark(1), { key: 'a', ctrlKey: true })
  expect(screen.getByText('3 points chosen')).toBeTruthy()
  fireEvent.keyDown(mark(1), { key: 'c', ctrlKey: true })
  expect(screen.getByRole('status').textContent).toBe('All of it is copied.')
  fireEvent.focus(mark(0))
  radio('Pitch')
  press('Paste')
  expect(of('pitch').points.map(({ value }) => value)).toEqual([1200, 588, 0])
  fireEvent.focus(mark(2))
  fireEvent.keyDown(mark(2), { key: 'Delete' })
  expect(of('pitch').points).toHaveLength(2)
  expect(fireEvent.keyDown(mark(0), { key: 'x' })).toBe(true) // left to others
})

test('all of it: upside down, back to front, fitted to the hit', () => {
  begun()
  render(<Bench />)
  press('Back to front')
  expect(of().points.map(({ value }) => value)).toEqual([0, 0.5, 1])
  press('Upside down')
  expect(of().points.map(({ value }) => value)).toEqual([1, 0.5, 0])
  typed('Longer or shorter, %', '25')
  press('Fit to the hit')
  expect(of().points[2]!.seconds).toBeCloseTo(drawn.soundSeconds, 5)
})

test('the first 20 ms show only the points that are there, and the whole is one tap away', () => {
  begun()
  render(<Bench />)
  check('First 20 ms')
  expect(marks()).toHaveLength(1)
  expect(document.querySelector('[aria-label^="Tide chart, 0.02 s"]')).toBeTruthy()
  check('First 20 ms')
  expect(marks()).toHaveLength(3)
})

test('a held envelope waits at a point, or goes round to it from an earlier one, and neither any more', () => {
  begun()
  render(<Bench canHold />)
  fireEvent.focus(mark(1))
  expect(screen.queryByText('Go round from here')).toBeNull()
  press('Wait here until let go')
  expect(of().sustain).toBe(1)
  press('Previous point')
  press('Go round from here')
  expect(of()).toMatchObject({ loop: { from: 0, to: 1 } })
  press('Do not go round')
  expect(of().sustain).toBe(1)
  press('Next point')
  press('Do not wait here')
  expect(Object.keys(of())).toEqual(['points'])
})

test('another hit is followed, or it is said why not', async () => {
  render(<Bench />)
  const points = [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.07, value: 0, bend: -0.3 }] // prettier-ignore
  mockFollow.mockResolvedValueOnce({ words: 'There is nothing to follow.' }).mockResolvedValueOnce({ envelope: { points }, words: 'It follows.' })
  press('Follow a hit')
  const list = within(screen.getByRole('list', { name: 'Hits to follow' }))
  expect(list.getAllByRole('listitem')).toHaveLength(1)
  press('Follow')
  expect(await screen.findByText('There is nothing to follow.')).toBeTruthy()
  press('Follow')
  expect(await screen.findByText('It follows.')).toBeTruthy()
  expect(of().points).toEqual(points)
}) // prettier-ignore
