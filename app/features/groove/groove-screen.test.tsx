import type { Kit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { clockSettings, clockState } from '../../audio/playing/hands/midi-clock'
import { aKitOf, aPad } from '../../testing/a-kit'
import { GrooveScreen } from './GrooveScreen'

let mockWide = false
let mockKit: Kit | undefined
let mockChosen: Set<string>
let mockBeads: object[]
function mockPart(name: string) {
  return () => <span>{name}</span>
}
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('../../kit-view', () => ({ useKit: () => mockKit }))
jest.mock('./hands/use-shown-groove', () => ({ useShownGroove: () => ({ strings: [{ beads: [] }, { beads: mockBeads }] }) }))
jest.mock('./hands/use-bead-hands', () => ({ useBeadHands: () => ({ chosen: mockChosen }) }))
jest.mock('./hands/use-zoom', () => ({ useZoom: () => ({ pxPerBeat: 80, setWidth: () => undefined }) }))
jest.mock('./bead/BeadPanel', () => ({ BeadPanel: mockPart('the bead') }))
jest.mock('./GrooveBar', () => ({ GrooveBar: mockPart('the bar') }))
jest.mock('./FirstBeads', () => ({ FirstBeads: mockPart('how to begin') }))
jest.mock('./sheets/RhythmSheet', () => ({
  RhythmSheet: ({ onClose }: { onClose: () => void }) => <button onClick={onClose}>Leave the rhythm</button>,
}))
jest.mock('./sheets/StringSheet', () => ({
  StringSheet: ({ padId, onClose }: { padId: string; onClose: () => void }) => <button onClick={onClose}>{`string of ${padId}`}</button>,
}))
jest.mock('./sheets/TimingPart', () => ({ TimingPart: mockPart('how it goes') }))
jest.mock('./strings/StringsView', () => ({
  StringsView: ({ onString }: { onString: (padId: string) => void }) => <button onClick={() => onString('pad-3')}>the strings</button>,
})) // prettier-ignore

const PARTS = ['the bar', 'how to begin', 'the strings', 'the bead', 'how it goes']
const shown = () => PARTS.filter((part) => screen.queryByText(part))
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  mockWide = false
  mockKit = aKitOf(aPad(1))
  mockChosen = new Set()
  mockBeads = [{}]
  act(() => {
    clockState.setState({ leads: false, tempoBpm: undefined })
    clockSettings.setState({ follows: undefined })
  })
})

test('a phone shows strings, with the chosen bead under them; how a groove goes waits in its sheet', () => {
  const { unmount } = render(<GrooveScreen />)
  expect(shown()).toEqual(['the bar', 'the strings'])
  unmount()
  mockChosen = new Set(['bead-1'])
  render(<GrooveScreen />)
  expect(shown()).toEqual(['the bar', 'the strings', 'the bead'])
})

test('beside the strings of a wide screen stands the chosen bead, else how the groove goes', () => {
  mockWide = true
  const { unmount } = render(<GrooveScreen />)
  expect(shown()).toEqual(['the bar', 'the strings', 'how it goes'])
  unmount()
  mockChosen = new Set(['bead-1'])
  render(<GrooveScreen />)
  expect(shown()).toEqual(['the bar', 'the strings', 'the bead'])
})

test('a groove without a bead on any string says how to begin, and a string opens its sheet', () => {
  mockBeads = []
  render(<GrooveScreen />)
  expect(shown()).toContain('how to begin')
  press('the strings')
  press('string of pad-3')
  expect(screen.queryByRole('button', { name: 'string of pad-3' })).toBeNull()
})

test('a kit without pads begins with a rhythm; before there is a kit nothing is drawn', () => {
  mockKit = aKitOf()
  const { unmount } = render(<GrooveScreen />)
  expect(shown()).toEqual(['the bar'])
  press('From a rhythm of your own')
  press('Leave the rhythm')
  expect(screen.queryByRole('button', { name: 'Leave the rhythm' })).toBeNull()
  unmount()
  mockKit = undefined
  expect(render(<GrooveScreen />).container.textContent).toBe('')
})

test('whose clock leads is said with its tempo, as far as it is known, and only while it leads', () => {
  act(() => clockSettings.setState({ follows: 'Slip sequencer' as never }))
  render(<GrooveScreen />)
  expect(screen.queryByRole('status')).toBeNull()
  act(() => clockState.setState({ leads: true }))
  expect(screen.getByRole('status').textContent).toBe('Slip sequencer leads, at … beats a minute.')
  act(() => clockState.setState({ tempoBpm: 103.04 }))
  expect(screen.getByRole('status').textContent).toBe('Slip sequencer leads, at 103.0 beats a minute.')
  act(() => clockSettings.setState({ follows: undefined }))
  expect(screen.queryByRole('status')).toBeNull()
})
