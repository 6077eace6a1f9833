import { createSource } from '@heliaster/core/kit'
import type { Kit, KitEdit, Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { session } from '../../../kit-view/session'
import { aKitOf, audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { BenchWaves } from './BenchWaves'
import { cutLooks } from './looks'
import { SourceTitle } from './SourceTitle'
import { TakesBar } from './TakesBar'
import { UpdateOffer } from './UpdateOffer'
import type { Analysis } from './use-source-cut'

let mockWide = false
let mockHeard = true
let mockEdits: KitEdit[] = []
const mockEdit = jest.fn()
const mockNotify = jest.fn()
const mockProps = new Map<string, Record<string, unknown>>()
function mockPart(name: string) {
  return (props: Record<string, unknown>) => {
    mockProps.set(name, props)
    return <span>{`the ${name}`}</span>
  }
}
jest.mock('../../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('../../../kit-view', () => ({ editKit: (...given: unknown[]) => mockEdit(...given) as unknown }))
jest.mock('../send/send-hits', () => ({ updateEdits: () => mockEdits }))
jest.mock('./use-source-cut', () => ({ isHeard: () => mockHeard }))
jest.mock('../wave/Overview', () => ({ Overview: mockPart('overview') }))
jest.mock('../wave/Spectrogram', () => ({ Spectrogram: mockPart('spectrogram') }))
jest.mock('../wave/StrengthChart', () => ({ StrengthChart: mockPart('strikes') }))
jest.mock('../wave/TimeScale', () => ({ TimeScale: mockPart('scale') }))
jest.mock('../wave/Waveform', () => ({ Waveform: mockPart('wave') }))
jest.mock('./WaterBar', () => ({ WaterBar: mockPart('water bar') }))

const source = createSource(makeId, audio, info, 'Slipway')
const gridded: Source = { ...source, cut: { ...source.cut, grid: { tempoBpm: 120 } as never } }
const analysis = { strikes: { hopFrames: 1, strikes: [], line: 0.3 } } as unknown as Analysis
const of = (name: string) => mockProps.get(name)!
const call = (name: string, prop: string, ...given: unknown[]) => act(() => void (of(name)[prop] as (...all: unknown[]) => void)(...given))
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const shownParts = () =>
  ['overview', 'wave', 'scale', 'spectrogram', 'strikes', 'water bar'].filter((name) => screen.queryByText(`the ${name}`))
const actions = { slideMarker: jest.fn(), slideTail: jest.fn(), endGesture: jest.fn(), slideCut: jest.fn(), setCut: jest.fn() }
const choose = jest.fn()

function waves(given: { readonly source?: Source; readonly isLow?: boolean; readonly isWhole?: boolean } = {}) {
  const bench = { hits: [], view: {}, setView: jest.fn(), actions, setChosenId: choose, isWhole: given.isWhole ?? false, tap: jest.fn(), setPassage: jest.fn() } // prettier-ignore
  return render(<BenchWaves source={given.source ?? source} analysis={analysis} bench={bench as never} tempoBpm={120} isLow={given.isLow ?? false} />) // prettier-ignore
}

beforeEach(() => {
  jest.clearAllMocks()
  mockWide = false
  mockHeard = true
  cutLooks.setState({ hasSpectrogram: true, showsOverview: true, showsStrikes: true })
})

test('which pictures there are is chosen; a phone shows all of a recording once, and the wave alone while the list is read', () => {
  waves().unmount()
  expect(mockProps.size).toBe(6)
  const first = waves({ isWhole: true })
  expect(shownParts()).toEqual(['wave', 'scale', 'spectrogram', 'strikes', 'water bar'])
  first.unmount()
  const low = waves({ isLow: true })
  expect(shownParts()).toEqual(['wave'])
  expect(of('wave').height as number).toBeLessThan(108)
  low.unmount()
  cutLooks.setState({ hasSpectrogram: false, showsOverview: false, showsStrikes: false })
  waves()
  expect([shownParts(), of('wave').height]).toEqual([['wave', 'scale'], 108])
})

test('strikes are no matter of a grid, and their line cannot be moved before they have been heard', () => {
  const { unmount } = waves({ source: gridded })
  expect(shownParts()).toEqual(['overview', 'wave', 'scale', 'spectrogram'])
  unmount()
  mockHeard = false
  waves()
  expect(shownParts()).toContain('strikes')
  expect(shownParts()).not.toContain('water bar')
})

test('on a wide screen the wave has the room that the other pictures leave, and never less than is of use', () => {
  mockWide = true
  const { container } = waves()
  const resize = (height: number) =>
    act(() => (container.firstChild as unknown as { __reactLayoutHandler: (event: object) => void }).__reactLayoutHandler({ nativeEvent: { layout: { height } } })) // prettier-ignore
  resize(600)
  const all = of('wave').height as number
  expect(all).toBe(600 - 24 - 34 - 96 - 144)
  act(() => cutLooks.setState({ hasSpectrogram: false }))
  expect(of('wave').height).toBe(all + 96)
  act(() => cutLooks.setState({ showsOverview: false, showsStrikes: false }))
  expect(of('wave').height).toBe(600 - 24)
  resize(120)
  expect(of('wave').height).toBe(150)
})

test('a marker that is slid is the one that is worked on, and a line that is moved is the person’s own', () => {
  waves()
  const [{ marker }] = hitsOf(1) as [ReturnType<typeof hitsOf>[number]]
  call('wave', 'onSlideMarker', marker, 4800)
  expect(choose).toHaveBeenCalledWith(marker.id)
  expect(actions.slideMarker).toHaveBeenCalledWith(marker, 4800)
  call('strikes', 'onSlide', 0.42)
  expect(actions.slideCut).toHaveBeenCalledWith({ waterLine: 0.42, findsLevel: undefined })
})

test('what is judged is counted, and goes in one step; where nothing is judged there is no bar', () => {
  const hits = hitsOf(5)
  const judged = (...verdicts: ('keep' | 'pass' | undefined)[]) => hits.map((hit, i) => ({ ...hit, marker: { ...hit.marker, verdict: verdicts[i] } }))
  const [remove, passRest] = [jest.fn(), jest.fn()]
  const bar = (...verdicts: ('keep' | 'pass' | undefined)[]) => <TakesBar hits={judged(...verdicts)} onRemovePassed={remove} onPassRest={passRest} />
  const { rerender } = render(bar())
  expect(screen.queryByRole('status')).toBeNull()
  rerender(bar('keep', 'pass', 'pass'))
  expect(screen.getByRole('status').textContent).toBe('1 kept, 2 passed, 2 open')
  press('Pass the rest')
  expect(passRest.mock.lastCall[0]).toMatchObject([{ id: hits[3]!.marker.id }, { id: hits[4]!.marker.id }])
  press('Remove 2 passed')
  expect(remove.mock.lastCall[0]).toMatchObject([{ id: hits[1]!.marker.id }, { id: hits[2]!.marker.id }])
  rerender(bar('pass', 'keep', 'keep', 'keep', 'keep'))
  expect(screen.queryByRole('button', { name: 'Pass the rest' })).toBeNull()
  press('Remove the passed one')
  expect(remove.mock.lastCall[0]).toMatchObject([{ id: hits[0]!.marker.id }])
  rerender(bar('pass'))
  expect(screen.getByRole('status').textContent).toBe('1 passed, 4 open') // nothing is kept, so nothing is "the rest"
  expect(screen.queryByRole('button', { name: 'Pass the rest' })).toBeNull()
}) // prettier-ignore

test('pads that play a hit as it was before are brought to it in one step, and counted as pads', () => {
  const kit: Kit = aKitOf()
  const clip = (padId: string): KitEdit => ({ type: 'setClip', padId, turnId: 't', rayId: 'r', clip: {} }) as never
  const offer = (key: string) => <UpdateOffer key={key} kit={kit} source={source} hits={[]} />
  const { rerender } = render(offer('none'))
  expect(screen.queryByRole('status')).toBeNull()
  mockEdits = [clip('a'), clip('a')]
  rerender(offer('one'))
  expect(screen.getByText('1 pad plays a hit as it was before')).toBeTruthy()
  press('Update it')
  expect(mockEdit).toHaveBeenCalledWith(kit.id, mockEdits)
  expect(mockNotify.mock.lastCall![0]).toBe('1 pad plays the hit as it is now.')
  mockEdits = [clip('a'), clip('b')]
  rerender(offer('two'))
  press('Update them')
  expect(mockNotify.mock.lastCall![0]).toBe('2 pads play the hits as they are now.')
})

test('the way back to all recordings is a phone’s; how to cut is offered where it can be set', () => {
  session.setState({ sourceId: source.id })
  const cut = jest.fn()
  const { rerender } = render(<SourceTitle source={source} right="12 hits" onCut={cut} />)
  expect(screen.getByText('Slipway')).toBeTruthy()
  expect(screen.getByText('12 hits')).toBeTruthy()
  press('How to cut')
  expect(cut).toHaveBeenCalledTimes(1)
  press('All recordings')
  expect(session.getState().sourceId).toBeUndefined()
  mockWide = true
  rerender(<SourceTitle source={source} action={<span>an action</span>} />)
  expect(screen.queryByRole('button')).toBeNull()
  expect(screen.getByText(/an action/)).toBeTruthy()
})
