import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { session } from '../../../kit-view/session'
import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { RhythmSheet } from './RhythmSheet'

const mockNavigate = jest.fn()
let mockOwn: Source[] = []
let mockTaken: Source
jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockNavigate(to) as unknown } }))
const mockState: { entries: Record<string, { doc: Source }> } = { entries: {} }
const mockEdit = jest.fn()
jest.mock('../../../documents', () => ({
  sources: {
    store: { getState: () => mockState, getInitialState: () => mockState, subscribe: () => () => undefined },
    edit: (...given: unknown[]) => mockEdit(...given) as unknown,
  },
}))
jest.mock('../../../kit-view', () => ({ useKitId: () => 'kit-1' }))
jest.mock('../../../kit-view/own-sounds', () => ({ useOwnSounds: () => mockOwn }))
jest.mock('../../record', () => ({
  RecordPanel: ({ onTaken }: { onTaken: (source: Source) => void }) => <button onClick={() => onTaken(mockTaken)}>Recorded</button>,
}))

const sound = (name: string, seconds: number) => createSource(makeId, audio, { ...info, frames: seconds * 48000 }, name)
const closed = jest.fn()
const offered = () => screen.queryAllByRole('radio').map((one) => one.textContent)

beforeEach(() => {
  jest.clearAllMocks()
  session.setState({ sourceId: undefined, asRhythm: undefined })
})

test('what has just been recorded goes to Cut as a rhythm', () => {
  mockTaken = sound('Recording 1', 9)
  render(<RhythmSheet onClose={closed} />)
  fireEvent.click(screen.getByRole('button', { name: 'Recorded' }))
  expect(session.getState()).toMatchObject({ sourceId: mockTaken.id, asRhythm: mockTaken.id })
  expect([mockNavigate.mock.calls, closed.mock.calls.length]).toEqual([[['/kit/kit-1/cut']], 1])
})

test('recordings of this kit that are long enough for a rhythm are offered, 24 at most', () => {
  mockOwn = [sound('Oar', 2.9), sound('Table', 3), ...Array.from({ length: 30 }, (_, i) => sound(`Deck ${i}`, 8))]
  render(<RhythmSheet onClose={closed} />)
  expect(offered()).toHaveLength(24)
  expect(offered()[0]).toBe('Table')
  fireEvent.click(screen.getByRole('radio', { name: 'Deck 3' }))
  expect(session.getState().asRhythm).toBe(mockOwn[5].id)
  expect(closed).toHaveBeenCalledTimes(1)
})

test('a rhythm is cut as played in time, in one step; one that a grid cuts, or that was already, stays as it is', () => {
  const cuts = [{}, { grid: { kind: 'marks' as const } }, { inTime: true }].map((more) => ({
    waterLine: 0.5,
    minGapSeconds: 0.06,
    ...more,
  }))
  mockOwn = cuts.map((cut, i) => ({ ...sound(`Deck ${i}`, 8), cut }))
  mockState.entries = Object.fromEntries(mockOwn.map((doc) => [doc.id, { doc }]))
  for (const [i, steps] of [1, 1, 1].entries()) {
    const { unmount } = render(<RhythmSheet onClose={closed} />)
    fireEvent.click(screen.getByRole('radio', { name: `Deck ${i}` }))
    expect(mockEdit).toHaveBeenCalledTimes(steps)
    unmount()
  }
  expect(mockEdit).toHaveBeenCalledWith(mockOwn[0].id, [
    { type: 'setSource', fields: { cut: { ...cuts[0], inTime: true, minGapSeconds: 0.045 } } },
  ])
})

test('where there is none, recording alone is offered; Escape goes nowhere', () => {
  mockOwn = [sound('Oar', 1)]
  render(<RhythmSheet onClose={closed} />)
  expect(screen.queryByRole('radiogroup')).toBeNull()
  fireEvent.keyDown(window, { key: 'Escape' })
  expect([closed.mock.calls.length, mockNavigate.mock.calls.length]).toEqual([1, 0])
})
