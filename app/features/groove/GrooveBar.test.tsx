import { stringOf } from '@heliaster/core/groove'
import { applyEdit } from '@heliaster/core/kit'
import type { Groove, Kit, KitEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import type * as vanilla from 'zustand/vanilla'

import { grooveState } from '../../audio/playing/groove-player'
import { takeState } from '../../audio/playing/groove-take'
import { aGroovyKit } from '../../testing/a-groove'
import { GrooveBar } from './GrooveBar'
import { useBeadHands } from './hands/use-bead-hands'

let mockEdit: (edits: KitEdit[]) => void
let mockIsWide = true
const mockDone = jest.fn((_act: string, ..._given: unknown[]) => undefined)
let mockLap = 0
jest.mock('../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../kit-view/use-kit', () => ({ kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }) }))
jest.mock('../../audio/engine/sound', () => ({ hearVersion: () => undefined, hearGroove: () => undefined }))
jest.mock('../../audio/playing/groove-player', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  return {
    grooveState: createStore(() => ({ playing: false, isSong: false })),
    toggleGroove: (id: unknown) => mockDone('play', id),
    chooseGroove: () => undefined,
    lapNow: () => mockLap,
  }
})
jest.mock('../../audio/playing/groove-take', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  return { takeState: createStore(() => ({ isOn: false, count: 0 })), finishTake: () => Promise.resolve(mockDone('end')) }
})
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockIsWide }))
jest.mock('../../ui/layout/notices', () => ({ notify: (words: string) => mockDone('say', words) }))
jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockDone('go', to) } }))
jest.mock('./sheets/BackingSheet', () => ({ BackingSheet: () => <i>a song</i> }))
jest.mock('./sheets/BringGroove', () => ({ BringGroove: () => <i>another groove</i> }))
jest.mock('./sheets/ChooseSheet', () => ({ ChooseSheet: () => <i>a rule</i> }))
jest.mock('./sheets/GroovesSheet', () => ({ GroovesSheet: ({ onRhythm }: { onRhythm: () => void }) => <button onClick={onRhythm}>grooves</button> })) // prettier-ignore
jest.mock('./sheets/MidiSheet', () => ({ MidiSheet: () => <i>a MIDI file</i> }))
jest.mock('./sheets/ReadySheet', () => ({ ReadySheet: () => <i>ready ones</i> }))
jest.mock('./sheets/RhythmSheet', () => ({ RhythmSheet: () => <i>a rhythm</i> }))
jest.mock('./sheets/TakeSheet', () => ({ TakeSheet: () => <i>a take</i> }))
jest.mock('./sheets/TimingPart', () => ({ TimingPart: () => <i>timing</i> }))

let kit: Kit
const zoom = {
  isFitted: true,
  by: (by: number) => mockDone('zoom', by),
  fit: () => mockDone('fit'),
  pxPerBeat: 40,
  setWidth: () => undefined,
}
function Shown({ first, isFitted }: { readonly first: Kit; readonly isFitted: boolean }) {
  const [doc, setDoc] = useState(first)
  kit = doc
  mockEdit = (edits) => setDoc((now) => (kit = edits.reduce(applyEdit, now)))
  const hands = useBeadHands(doc, doc.grooves[0])
  return <GrooveBar hands={hands} zoom={{ ...zoom, isFitted }} />
}
const show = (first = aGroovyKit(), isFitted = true) => render(<Shown first={first} isFitted={isFitted} />)
const button = (name: string) => screen.getByRole('button', { name })
const press = (name: string) => fireEvent.click(button(name))
const cannot = (name: string) => button(name).getAttribute('aria-disabled') === 'true'
const withChance = (groove: Groove): Groove => ({ ...groove, strings: groove.strings.map((string) => ({ ...string, beads: string.beads.map((bead) => ({ ...bead, chance: 0 })) })) }) // prettier-ignore

beforeEach(() => {
  jest.clearAllMocks()
  mockIsWide = true
  mockLap = 0
  grooveState.setState({ playing: false, isSong: false })
  takeState.setState({ isOn: false })
})

test('it plays and stops, and says which groove it is, or that it is the song', () => {
  show({ ...aGroovyKit(), song: [{ id: 's', groove: 'groove-ebb', laps: 1 }] as never })
  press('Play')
  expect(mockDone).toHaveBeenLastCalledWith('play', 'kit-g')
  act(() => grooveState.setState({ playing: true }))
  press('Stop')
  press('Ebb')
  act(() => grooveState.setState({ isSong: true }))
  expect(button('Song, Ebb')).toBeTruthy()
})

test('pads are recorded once it was said how, and while they are the same button ends it', () => {
  for (const isWide of [true, false]) {
    mockIsWide = isWide
    takeState.setState({ isOn: false })
    const { unmount } = show()
    press('Record from pads')
    expect([screen.getByText('a take').textContent, mockDone.mock.calls.length]).toEqual(['a take', 0])
    act(() => takeState.setState({ isOn: true }))
    press('End the recording')
    expect(mockDone).toHaveBeenCalledWith('end')
    mockDone.mockClear()
    unmount()
  }
})

test('a kit without pads can be given some, and all that needs pads waits', () => {
  const { unmount } = show({ ...aGroovyKit(), pads: [] })
  expect(['Play', 'Record from pads', 'Ready grooves'].map(cannot)).toEqual([true, true, true])
  press('More')
  expect(['Bring a groove', 'From a rhythm of your own'].map(cannot)).toEqual([true, false])
  press('From a rhythm of your own')
  expect(screen.getByText('a rhythm')).toBeTruthy()
  unmount()
})

test('on a phone the rest stands in words behind one button, with the tempo beside it', () => {
  mockIsWide = false
  show(aGroovyKit(), false)
  press('96 BPM')
  expect(screen.getByText('timing')).toBeTruthy()
  fireEvent.keyDown(window, { key: 'Escape' })
  press('More')
  press('Closer')
  expect(mockDone).toHaveBeenLastCalledWith('zoom', 1)
  press('More')
  press('The whole lap')
  expect(mockDone).toHaveBeenLastCalledWith('fit')
  press('More')
  press('Performances')
  expect(mockDone).toHaveBeenLastCalledWith('go', '/kit/kit-g/performances')
  for (const [name, words] of [['Ready grooves', 'ready ones'], ['Choose by rule', 'a rule'], ['A song beside it', 'a song'], ['MIDI file in or out', 'a MIDI file']]) {
    press('More')
    press(name)
    expect(screen.getByText(words)).toBeTruthy()
  }
}) // prettier-ignore

test('on a wide screen it is nearer and further by a press, and nothing fits what fits already', () => {
  show()
  press('Further away')
  press('Closer')
  expect(mockDone.mock.calls).toEqual([['zoom', -1], ['zoom', 1]]) // prettier-ignore
  press('More')
  expect(screen.queryByRole('button', { name: 'The whole lap' })).toBeNull()
})

test('other draws, and a lap set down, are for grooves that leave something to chance', () => {
  const { unmount } = show()
  press('More')
  expect(['Again, with other draws', 'Set a lap down as plain beads'].map(cannot)).toEqual([true, true])
  unmount()
  mockLap = 2
  show(aGroovyKit(withChance))
  const before = kit.seed
  press('More')
  press('Again, with other draws')
  expect(kit.seed).not.toBe(before)
  press('More')
  press('Set lap 3 down as plain beads')
  expect(kit.pads.flatMap(({ id }) => stringOf(kit.grooves[0], id).beads)).toEqual([]) // none of them ever sounds
  expect(mockDone).toHaveBeenLastCalledWith('say', 'Lap 3 is set down as plain beads.')
})
