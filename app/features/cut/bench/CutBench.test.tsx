import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { session } from '../../../kit-view/session'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { CutBench } from './CutBench'

let mockWide = false
let mockState: object
let mockBench: Record<string, unknown>
let mockHeard = true
const mockProps = new Map<string, Record<string, never>>()
function mockPart(name: string) {
  return (props: Record<string, never>) => {
    mockProps.set(name, props)
    return <span>{`the ${name}`}</span>
  }
}
jest.mock('../../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('../../../kit-view', () => ({ useKit: () => undefined }))
jest.mock('./use-bench', () => ({ useBench: () => mockBench }))
jest.mock('./use-source-cut', () => ({ useAnalysis: () => mockState, isHeard: () => mockHeard }))
jest.mock('./BenchWaves', () => ({ BenchWaves: mockPart('wave') }))
jest.mock('./BenchSheets', () => ({ BenchSheets: mockPart('sheets') }))
jest.mock('./MarkerBar', () => ({ MarkerBar: mockPart('marker bar') }))
jest.mock('./PassageBar', () => ({ PassageBar: mockPart('passage bar') }))
jest.mock('./SourceTitle', () => ({ SourceTitle: mockPart('title') }))
jest.mock('./TakesBar', () => ({ TakesBar: mockPart('takes bar') }))
jest.mock('./UpdateOffer', () => ({ UpdateOffer: () => null }))
jest.mock('../hits/HitList', () => ({ HitList: mockPart('list') }))
jest.mock('../hits/ListBar', () => ({ ListBar: mockPart('list bar') }))
jest.mock('../wave/ReadingPicture', () => ({ ReadingPicture: mockPart('picture') }))

const source = createSource(makeId, audio, info, 'Slipway')
const hits = hitsOf(4)
const props = (name: string) => mockProps.get(name)! as Record<string, unknown>
const call = (name: string, prop: string, ...given: unknown[]) =>
  act(() => void (props(name)[prop] as (...all: unknown[]) => void)(...given))

function show(more: Record<string, unknown> = {}, of: Source = source) {
  const keepPassage = () => hits[3].marker.id
  mockBench = { hits, kept: hits.slice(1), listed: hits, actions: {}, rate: 48000, list: undefined, listView: {}, row: {}, unpassed: hits, keepPassage, setPassage: jest.fn(), ...more } // prettier-ignore
  return render(<CutBench source={of} />)
}

beforeEach(() => {
  mockProps.clear()
  mockWide = false
  mockHeard = true
  mockState = { type: 'ready', analysis: {} }
  session.setState({ asRhythm: undefined })
})

test('while a recording is read its picture is there; one that cannot be read says why', () => {
  mockState = { type: 'reading' }
  show().unmount()
  const low = props('picture').height as number
  mockWide = true
  show().unmount()
  expect(props('picture').height as number).toBeGreaterThan(low)
  mockState = { type: 'failed', message: 'This audio is gone.' }
  show()
  expect(screen.getByRole('alert').textContent).toBe('This audio is gone.')
  expect(screen.queryByText('the list')).toBeNull()
})

test('how many hits there are and are kept is said; the button says how many it sends', () => {
  const said = [[4, 3], [3, 3], [1, 1], [0, 0]].map(([all, kept]) => {
    const { unmount } = show({ hits: hits.slice(0, all), kept: hits.slice(0, kept) })
    const button = screen.getByRole('button', { name: /to pads$/ })
    const words = [props('title').right, button.textContent, button.getAttribute('aria-disabled') === 'true']
    unmount()
    return words
  }) // prettier-ignore
  expect(said).toEqual([
    ['4 hits, 3 kept', 'Send 3 hits to pads', false],
    ['3 hits', 'Send 3 hits to pads', false],
    ['1 hit', 'Send 1 hit to pads', false],
    ['0 hits', 'Send 0 hits to pads', true],
  ])
})

test('until strikes are heard it says so, and nothing is counted', () => {
  mockHeard = false
  show({ hits: [], kept: [] })
  expect(props('title').right).toBe('Listening for strikes')
  expect(props('list').emptyWords).toMatch(/being listened to/)
  expect(screen.getByRole('button', { name: 'Send hits to pads' })).toBeTruthy()
})

test('an empty list says why: another order, no marker yet, or the water', () => {
  const wordsOf = (more: object, of?: Source) => {
    show(more as never, of).unmount()
    return props('list').emptyWords
  }
  expect(wordsOf({ listed: [] })).toMatch(/^No hit is like this/)
  expect(wordsOf({ hits: [] })).toMatch(/^No hit stands out of the water/)
  expect(wordsOf({ hits: [] }, { ...source, cut: { ...source.cut, grid: { kind: 'marks' } } } as never)).toMatch(/^There is no marker yet/)
})

test('hits that are kept are sent; a passage is sent alone, and once its sheet is closed all are again', () => {
  show({ passage: { startFrame: 0, endFrame: 9 } })
  expect(props('sheets').open).toBeUndefined()
  fireEvent.click(screen.getByRole('button', { name: 'Send 3 hits to pads' }))
  expect([props('sheets').open, props('sheets').kept]).toEqual(['send', hits.slice(1)])
  call('sheets', 'onClose')
  expect(props('sheets').open).toBeUndefined()
  call('passage bar', 'onSend')
  expect([props('sheets').open, props('sheets').kept]).toEqual(['send', [hits[3]]])
  call('sheets', 'onClose')
  expect(props('sheets').kept).toEqual(hits.slice(1))
  call('passage bar', 'onClose')
  expect(mockBench.setPassage).toHaveBeenCalledWith(undefined)
})

test('details, names, repairs and how to cut open their sheets', () => {
  show()
  for (const [part, prop, open] of [['marker bar', 'onDetails', 'hit'], ['marker bar', 'onNames', 'names'], ['marker bar', 'onRepairs', 'repair'], ['title', 'onCut', 'cut']] as const) {
    call(part, prop)
    expect(props('sheets').open).toBe(open)
  }
  expect(screen.queryByText('the passage bar')).toBeNull()
}) // prettier-ignore

test('a recording that was made as a rhythm opens as one, once', () => {
  session.setState({ asRhythm: source.id })
  show().unmount()
  expect(props('sheets').open).toBe('rhythm')
  show()
  expect(props('sheets').open).toBeUndefined()
})

test('on a phone a long list that is scrolled takes room from the wave; a wide screen has a bar over its list instead', () => {
  const { unmount } = show()
  expect([props('wave').isLow, screen.queryByText('the list bar')]).toEqual([false, null])
  call('list', 'onScrolled', 25, 701)
  expect(props('wave').isLow).toBe(true)
  call('list', 'onScrolled', 24, 701)
  expect(props('wave').isLow).toBe(false)
  call('list', 'onScrolled', 25, 700)
  expect(props('wave').isLow).toBe(false)
  unmount()
  mockWide = true
  show()
  call('list', 'onScrolled', 25, 701)
  expect(props('wave').isLow).toBe(false)
  call('list bar', 'onRepairs')
  expect(props('sheets').open).toBe('repair')
  call('list bar', 'onNames')
  expect(props('sheets').open).toBe('names')
})
