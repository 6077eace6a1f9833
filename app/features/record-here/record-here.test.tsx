import { createSource } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import type { TakeTarget } from '@heliaster/core/place'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { live } from '../../audio/recording/live'
import { makeId } from '../../documents/make-id'
import { after, aKitOf, aPad, audio, info } from '../../testing/a-kit'
import * as aRecorder from '../../testing/a-recorder'
import { hitsOf } from '../../testing/hits'
import type { CutHit } from '../cut'
import { groupsOf } from './groups'
import { RecordHereSheet } from './RecordHereSheet'

let mockState: object = { type: 'ready', analysis: {} }
let mockHits: CutHit[] = []
let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn((_clip: { startFrame: number }) => Promise.resolve())
const mockNotify = jest.fn()
jest.mock('../../audio/recording/recorder', () => jest.requireActual<typeof aRecorder>('../../testing/a-recorder'))
jest.mock('../../audio/recording/use-recorder', () => {
  const { useStore } = jest.requireActual<{ useStore: (store: unknown) => unknown }>('zustand')
  return { useRecorder: () => useStore(jest.requireActual<typeof aRecorder>('../../testing/a-recorder').recorder) }
})
jest.mock('../../audio/engine/sound', () => ({ hearClip: (clip: { startFrame: number }) => mockHear(clip) }))
jest.mock('../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('../record', () => ({ ...jest.requireActual<object>('../record/RecordButton'), LiveWave: () => null }))
jest.mock('../cut', () => {
  const { useState: useHeld } = jest.requireActual<{ useState: typeof useState }>('react')
  return {
    ...jest.requireActual<object>('../cut/hits/hit-clip'),
    ...jest.requireActual<object>('../cut/hits/HitRow'),
    useAnalysis: () => mockState,
    useHits: () => mockHits,
    useCutActions: () => {
      const [, draw] = useHeld(0)
      return {
        judge: (marker: { id: string }, verdict: 'keep' | 'pass') => {
          mockHits = mockHits.map((one) => (one.marker.id === marker.id ? { ...one, marker: { ...one.marker, verdict } } : one))
          draw((n) => n + 1)
        },
      }
    },
  }
})

const source = createSource(makeId, audio, info, 'Recording 1')
let kit: Kit
let edits: KitEdit[][]
const closed = jest.fn()
function Shown({ first, target }: { readonly first: Pad; readonly target: TakeTarget }) {
  const [doc, setDoc] = useState(() => aKitOf(first))
  kit = doc
  mockEdit = (list) => {
    edits.push(list)
    setDoc((now) => (kit = after(now, list)))
  }
  return <RecordHereSheet kit={doc} pad={doc.pads[0]} target={target} onClose={closed} />
}
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const onto = (first: Pad, target: TakeTarget) => render(<Shown first={first} target={target} />)
const strikes = (count: number) => {
  mockHits = hitsOf(count)
  act(() => aRecorder.taken(source))
}
/** Where the clips of a pad begin, turn by turn, band by band. */
const begins = () => kit.pads[0].bands.map(({ turns }) => turns.map(({ clips }) => (Object.values(clips)[0] as Clip).startFrame))

beforeEach(() => {
  jest.clearAllMocks()
  aRecorder.resetRecorder()
  edits = []
  mockState = { type: 'ready', analysis: {} }
})

test('strikes become turns of an empty pad in one step; one that is passed does not', () => {
  onto({ ...aPad(0), bands: [] }, { kind: 'pad' })
  expect(screen.getByRole('status').textContent).toBe('Press, then strike five times or more.')
  press('Record')
  expect(screen.getByRole('status').textContent).toBe('Strike. The best are chosen afterwards.')
  press('Stop')
  strikes(3)
  expect(screen.getByRole('dialog', { name: '3 strikes found' })).toBeTruthy()
  expect(screen.queryByRole('radio', { name: 'Replace it' })).toBeNull() // nothing is there
  fireEvent.click(screen.getAllByRole('button', { name: /: pass it$/ })[1])
  press('Put 2 turns on')
  expect(begins()).toEqual([[0, 2000]])
  expect([edits.length, closed.mock.calls.length]).toEqual([1, 1])
})

test('what is there stays, or goes when that is asked for', () => {
  for (const [way, count] of [['Add to what is there', 3], ['Replace it', 1]] as const) {
    const { unmount } = onto(aPad(2), { kind: 'pad' })
    press('Record')
    strikes(1)
    fireEvent.click(screen.getByRole('radio', { name: way }))
    press('Put 1 turn on')
    expect(kit.pads[0].bands[0].turns).toHaveLength(count)
    unmount()
  }
}) // prettier-ignore

test('a guided pass goes from soft to hard, and each of its parts becomes a band', () => {
  onto({ ...aPad(0), bands: [] }, { kind: 'pad' })
  fireEvent.click(screen.getByRole('radio', { name: 'Soft, middle, hard' }))
  press('Record')
  expect(screen.getByRole('status').textContent).toBe('Strike soft, several times.')
  live.seconds = 1500 / 48000
  press('Next: middle')
  live.seconds = 3500 / 48000
  press('Next: hard')
  expect(screen.queryByRole('button', { name: /^Next/ })).toBeNull()
  strikes(6)
  expect(['Soft', 'Middle', 'Hard'].every((name) => screen.getByText(name))).toBe(true)
  press('Put them on as bands: soft 2, middle 2, hard 2')
  expect(begins()).toEqual([[0, 1000], [2000, 3000], [4000, 5000]]) // prettier-ignore
})

test('a cell takes one: the one that stands out most, or the one that is heard last', () => {
  const pad = aPad(2)
  const { id } = pad.bands[0].turns[1]
  onto(pad, { kind: 'turn', turnId: id, rayId: pad.rays[0].id })
  expect(screen.getByRole('dialog', { name: 'Record onto Oar, band 1, turn 2' })).toBeTruthy()
  press('Record')
  strikes(3)
  fireEvent.click(screen.getAllByRole('button', { name: /^Hear / })[1])
  expect(mockHear.mock.calls[0][0].startFrame).toBe(1000)
  press('Put it into the cell')
  expect(begins()).toEqual([[0, 1000]])
})

test('where nothing stands out it says so, nothing can be put on, and it is recorded again', () => {
  onto(aPad(1), { kind: 'pad' })
  press('Record')
  strikes(0)
  expect(screen.getByText(/^No strike stands out\. The recording is on the list in Gather/)).toBeTruthy()
  expect(screen.getByRole('button', { name: /^Put 0/ }).getAttribute('aria-disabled')).toBe('true')
  press('Record again')
  expect(aRecorder.startTake).toHaveBeenCalledTimes(2)
  expect(screen.getByRole('dialog', { name: 'Record onto Oar' })).toBeTruthy()
})

test('a recording that cannot be read, or no input, is said; closing ends what runs', () => {
  onto(aPad(1), { kind: 'pad' })
  act(() => aRecorder.recorder.setState({ problem: 'The deck was unplugged.' }))
  expect(screen.getByRole('alert').textContent).toBe('The deck was unplugged.')
  press('Record')
  fireEvent.keyDown(window, { key: 'Escape' })
  expect([aRecorder.stopTake.mock.calls.length, closed.mock.calls.length]).toEqual([1, 1])
  mockState = { type: 'failed', message: 'This file holds no sound.' }
  strikes(0)
  expect(screen.getByRole('alert').textContent).toBe('This file holds no sound.')
})

test('takes are parted at the borders, each once, what lies on one in the later part', () => {
  const takes = [0, 48000, 95999, 96000].map((frame) => ({ marker: { frame } }))
  expect(groupsOf(takes, [1, 2], 48000).map((group) => group.map(({ marker }) => marker.frame))).toEqual([[0], [48000, 95999], [96000]])
  expect(groupsOf(takes, [], 48000)).toEqual([takes])
})
