import { applyEdit } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { PARTS, showPart } from '../../kit-view/shape-parts'
import { aKitOf, aPad } from '../../testing/a-kit'
import { chartSettings, chartView } from './chart/chart-view'
import { ShapeBench } from './ShapeBench'
import { ShapeScreen } from './ShapeScreen'
import { ShapeTitle } from './ShapeTitle'

let mockWide = false
let mockEdit: (edits: KitEdit[]) => void = () => undefined
let mockDrawn: object | undefined
let mockKit: Kit | undefined
let mockBefore = { hasChanged: false, hear: jest.fn() }
const mockGo = jest.fn()
const mockHear = jest.fn()
const mockProps = new Map<string, Record<string, unknown>>()
function mockPart(name: string) {
  return (props: Record<string, unknown>) => {
    mockProps.set(name, props)
    return <span>{`the ${name}`}</span>
  }
}
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('expo-router', () => ({ router: { navigate: (where: string) => mockGo(where) as unknown } }))
jest.mock('../../kit-view', () => ({ useKit: () => mockKit, useKitId: () => 'kit-1' }))
jest.mock('../../kit-view/use-kit', () => ({
  padGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name,
  hearAgain: (...given: unknown[]) => mockHear(...given) as unknown,
  useChosenPad: () => mockKit?.pads[0] && { kit: mockKit, pad: mockKit.pads[0] },
}))
jest.mock('./whom/use-before', () => ({ useBefore: () => mockBefore }))
jest.mock('./chart/use-drawn-hit', () => ({ useDrawnHit: () => mockDrawn }))
jest.mock('./chart/use-envelope', () => ({ useEnvelope: () => ({ chart: 'work' }) }))
jest.mock('./chart/TideChart', () => ({ TideChart: mockPart('chart') }))
jest.mock('./chart/ChartViewBar', () => ({ ChartViewBar: mockPart('view bar') }))
jest.mock('./chart/EnvelopeBar', () => ({ EnvelopeBar: mockPart('envelope bar') }))
jest.mock('./chart/EnvelopePart', () => ({ EnvelopePart: mockPart('envelopes') }))
jest.mock('./chart/WaterWords', () => ({ WaterWords: mockPart('water') }))
jest.mock('./responses/Movers', () => ({ Movers: mockPart('movers') }))
jest.mock('./controls/parts', () => ({
  CharacterPart: mockPart('character'),
  ClipPart: mockPart('clip'),
  FiltersPart: mockPart('filters'),
}))
jest.mock('./dynamics/DynamicsPart', () => ({ DynamicsPart: mockPart('dynamics') }))
jest.mock('./matter-later', () => ({ MatterPart: mockPart('matter') }))
jest.mock('./quick/QuickShape', () => ({ QuickShape: mockPart('recipe') }))
jest.mock('./slices/SlicesPart', () => ({ SlicesPart: mockPart('slices') }))
jest.mock('./spectrum/SpectrumChart', () => ({ SpectrumChart: mockPart('spectrum') }))
jest.mock('./whom/WhomChips', () => ({ WhomChips: mockPart('whom') }))

let kit: Kit
function Shown({ of, at = 0 }: { readonly of: Kit; readonly at?: number }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <ShapeBench key={doc.pads[at]!.id} kit={doc} pad={doc.pads[at]!} />
}
const named = (name: string, turns = 1): Pad => ({ ...aPad(turns), own: { name } })
const props = (name: string) => mockProps.get(name) as Record<string, never>
const call = (name: string, prop: string, ...given: unknown[]) =>
  act(() => void (props(name)[prop] as (...all: unknown[]) => void)(...given))
const there = (...names: string[]) => names.map((name) => screen.queryByText(`the ${name}`) !== null)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  mockProps.clear()
  mockWide = false
  mockDrawn = undefined
  mockBefore = { hasChanged: false, hear: jest.fn() }
  act(() => showPart('recipe'))
  chartView.setState({ isFirst: true, showsSpectrum: true, showsMatter: false })
  chartSettings.setState({ isSnapping: true })
})

test.each(PARTS)('$text shows its part alone, at both sizes', ({ value, text }) => {
  const { unmount } = render(<Shown of={aKitOf(named('Oar'))} />)
  fireEvent.click(screen.getByRole('radio', { name: text }))
  const shown = () => PARTS.map(({ value }) => value).filter((name) => there(name)[0])
  expect(shown()).toEqual([value])
  unmount()
  mockWide = true
  render(<Shown of={aKitOf(named('Oar'))} />)
  expect(shown()).toEqual([value])
})

test('a phone’s chart is low and still beside the recipe, and full where envelopes are drawn', () => {
  render(<Shown of={aKitOf(named('Oar'))} />)
  const quick = props('chart')
  expect([quick.isWide, quick.isStill, quick.isFirst, quick.showsSpectrum, quick.isSnapping]).toEqual([true, true, false, false, false])
  expect(there('view bar', 'spectrum', 'envelope bar')).toEqual([false, false, false])
  act(() => showPart('envelopes'))
  const full = props('chart')
  expect([full.isWide, full.isStill, full.isFirst, full.showsSpectrum, full.isSnapping]).toEqual([false, false, true, true, true])
  expect(Number(full.heightPx)).toBeGreaterThan(2 * Number(quick.heightPx))
  expect(there('view bar')).toEqual([true])
  expect(props('envelopes').hasBar).toBe(true)
})

test('a wide screen has chart, spectrum, dynamics and the envelopes’ bar at once; in Matter frequencies are switched there', () => {
  mockWide = true
  render(<Shown of={aKitOf(named('Oar'))} />)
  expect(there('chart', 'view bar', 'spectrum', 'dynamics', 'envelope bar', 'water')).toEqual(Array(6).fill(true))
  expect([props('chart').heightPx, props('chart').isFirst, props('chart').showsSpectrum]).toEqual([undefined, true, true])
  act(() => showPart('matter'))
  expect([props('chart').showsSpectrum, props('view bar').isOfMatter]).toEqual([false, true])
  act(() => showPart('filters'))
  expect(props('filters').hasChart).toBe(false)
  call('envelope bar', 'onEnvelopes')
  expect(there('envelopes')).toEqual([true])
})

test('the pitch that is shown is the hit’s with what it is tuned by', () => {
  const [pad] = [named('Oar')]
  mockDrawn = { pitchHz: 110 }
  render(<Shown of={aKitOf({ ...pad, own: { name: 'Oar', values: { tuneCents: 1200 } } })} />)
  expect(props('chart').baseHz).toBeCloseTo(220, 9)
})

test('several pads are shaped as one, which says whose responses are seen, and stay so while one of them is struck', () => {
  mockWide = true
  const of = aKitOf(named('Oar'), named('Cleat'), named('Winch'))
  const { unmount } = render(<Shown of={of} />)
  act(() => showPart('movers'))
  expect(screen.queryByText(/These are the responses of/)).toBeNull()
  call('whom', 'onWhom', { kind: 'pads', padIds: [of.pads[0]!.id, of.pads[1]!.id] })
  expect(screen.getByText(/These are the responses of Oar\./)).toBeTruthy()
  call('spectrum', 'onChange', { values: { tuneCents: 70 } })
  expect(kit.pads.map((pad) => pad.own.values?.tuneCents)).toEqual([70, 70, undefined])
  unmount()
  const second = render(<Shown of={of} at={1} />)
  expect(screen.getByText(/These are the responses of Cleat\./)).toBeTruthy()
  second.unmount()
  const third = render(<Shown of={of} at={2} />)
  expect(screen.queryByText(/These are the responses of/)).toBeNull()
  third.unmount()
  render(<Shown of={of} at={1} />) // another pad in between ends it
  expect(screen.queryByText(/These are the responses of/)).toBeNull()
})

test('what a ray responds to is asked for with that ray', () => {
  render(<Shown of={aKitOf(named('Oar'))} />)
  act(() => showPart('movers'))
  expect(props('movers').rayId).toBeUndefined()
  const rayId = kit.pads[0]!.rays[0]!.id
  call('whom', 'onWhom', { kind: 'ray', rayId })
  expect(props('movers').rayId).toBe(rayId)
})

test('there is something to shape where a pad has clips; else the Board is a tap away', () => {
  mockKit = undefined
  const { container, unmount } = render(<ShapeScreen />)
  expect(container.textContent).toBe('')
  unmount()
  mockKit = aKitOf()
  const none = render(<ShapeScreen />)
  expect(screen.getByText('No pad to shape yet')).toBeTruthy()
  none.unmount()
  mockKit = aKitOf(named('Oar', 0))
  const empty = render(<ShapeScreen />)
  expect(screen.getByText('Oar is empty')).toBeTruthy()
  press('To the Board')
  expect(mockGo).toHaveBeenCalledWith('/kit/kit-1/board')
  empty.unmount()
  mockKit = aKitOf(named('Oar'))
  render(<ShapeScreen />)
  expect(there('chart')).toEqual([true])
})

test('the title names the pad and its pitch in hertz and as a note, or says that it has none once it is known', () => {
  const [pad] = [named('Oar')]
  const all = { ...aKitOf(pad), tuningA4Hz: 440 }
  const title = (drawn: object | undefined, baseHz: number | undefined) => <ShapeTitle kit={all} pad={pad} drawn={drawn as never} baseHz={baseHz} />
  const { rerender, container } = render(title(undefined, undefined))
  expect(container.textContent).toBe('Oar')
  rerender(title({}, undefined))
  expect(screen.getByText('unpitched')).toBeTruthy()
  rerender(title({}, 220.04))
  expect(screen.getByText(/^220\.0 Hz, A/)).toBeTruthy()
  press('Hear Oar')
  expect(mockHear).toHaveBeenCalledWith(all.id, pad.id)
  const before = 'Hear it as it was when you came, as loud as now'
  expect(screen.getByRole('button', { name: before }).getAttribute('aria-disabled')).toBe('true')
  mockBefore = { hasChanged: true, hear: jest.fn() }
  rerender(title({}, 110))
  press(before)
  expect(mockBefore.hear).toHaveBeenCalledTimes(1)
}) // prettier-ignore
