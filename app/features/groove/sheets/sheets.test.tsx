import { stringOf } from '@heliaster/core/groove'
import { applyEdit } from '@heliaster/core/kit'
import type { Groove, Kit, KitEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'
import type { ReactNode } from 'react'
import type * as vanilla from 'zustand/vanilla'

import { backingState } from '../../../audio/playing/backing'
import { grooveState } from '../../../audio/playing/groove-player'
import { beginTake, takeSettings } from '../../../audio/playing/groove-take'
import { aGroovyKit } from '../../../testing/a-groove'
import { FirstBeads } from '../FirstBeads'
import { useBeadHands } from '../hands/use-bead-hands'
import type { BeadHands } from '../hands/use-bead-hands'
import { BackingSheet } from './BackingSheet'
import { ChooseSheet } from './ChooseSheet'
import { GroovesSheet } from './GroovesSheet'
import { MidiSheet } from './MidiSheet'
import { ReadySheet } from './ReadySheet'
import { StringSheet } from './StringSheet'
import { TakeSheet } from './TakeSheet'
import { TimingPart } from './TimingPart'

let mockEdit: (edits: KitEdit[]) => void
const mockChoose = jest.fn((_id: unknown) => undefined)
const mockStart = jest.fn((_id: unknown) => undefined)
const mockHear = jest.fn((_groove: unknown) => undefined)
const mockSave = jest.fn((..._given: unknown[]) => undefined)
const mockFiles: { readonly name: string; arrayBuffer(): Promise<ArrayBuffer> }[] = []
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name,
}))
jest.mock('../../../audio/engine/sound', () => ({ hearVersion: () => undefined, hearGroove: (groove: unknown) => mockHear(groove) }))
jest.mock('../../../audio/playing/groove-take', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  return {
    takeState: createStore(() => ({ isOn: false, count: 0 })),
    takeSettings: createStore(() => ({ isInstead: false, share: 0.5, hasClick: false })),
    beginTake: jest.fn(),
    finishTake: jest.fn(),
  }
})
jest.mock('../../../audio/playing/groove-player', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  const grooveState = createStore(() => ({ playing: false, isSong: false }))
  return {
    grooveState,
    chooseGroove: (id: unknown) => mockChoose(id),
    playAlone: (id: unknown) => mockChoose(id),
    playSong: (isSong: boolean) => grooveState.setState({ isSong }),
    startGroove: (id: unknown) => mockStart(id),
    stopGroove: () => undefined,
  }
})
jest.mock('../../../ui/layout/use-is-wide', () => ({ useIsWide: () => true }))
jest.mock('../../../ui/layout/notices', () => ({ notify: () => undefined }))
jest.mock('../../../ui/device/choose-files', () => ({ chooseFiles: () => Promise.resolve(mockFiles), saveFile: (...given: unknown[]) => mockSave(...given) })) // prettier-ignore
const mockBacking = jest.fn((..._said: unknown[]) => undefined)
jest.mock('../../../audio/playing/backing', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  return {
    backingState: createStore(() => ({ isReading: false, isOn: true, levelDb: -6 })),
    chooseBacking: (...said: unknown[]) => mockBacking('choose', ...said),
    removeBacking: () => mockBacking('remove'),
    setBacking: (...said: unknown[]) => mockBacking('set', ...said),
    setBackingLevel: (...said: unknown[]) => mockBacking('level', ...said),
    turnBacking: (...said: unknown[]) => mockBacking('turn', ...said),
  }
})
jest.mock('../../../kit-view/midi-work', () => ({ midiWork: () => Promise.resolve(jest.requireActual('@heliaster/core/groove/midi')) }))

let hands: BeadHands
let kit: Kit
function Shown({ of, first }: { readonly of: (hands: BeadHands) => ReactNode; readonly first: Kit }) {
  const [doc, setDoc] = useState(first)
  kit = doc
  mockEdit = (list) => setDoc((now) => list.reduce(applyEdit, now))
  hands = useBeadHands(doc, doc.grooves.find(({ id }) => id === mockChoose.mock.lastCall?.[0]) ?? doc.grooves[0])
  return of(hands)
}

const closed = jest.fn()
const show = (of: (hands: BeadHands) => ReactNode, first = aGroovyKit()) => render(<Shown of={of} first={first} />)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const nudge = (name: string, key = 'ArrowRight') => fireEvent.keyDown(screen.getByRole('slider', { name }), { key })
const stepsOn = (row: number) => stringOf(hands.groove, kit.pads[row].id).beads.map(({ step }) => step)
const withBare = (groove: Groove): Groove => ({ ...groove, strings: [] })

beforeEach(() => {
  for (const mock of [mockChoose, mockStart, mockHear, mockSave, closed]) mock.mockClear()
  mockFiles.length = 0
})

test('grooves are made, copied, renamed, cleared, put in order and deleted', () => {
  show((given) => <GroovesSheet hands={given} onClose={closed} onReady={closed} onBring={closed} onRhythm={closed} />)
  press('Copy')
  expect(kit.grooves.map(({ name }) => name)).toEqual(['Ebb', 'Ebb 2'])
  expect(mockChoose).toHaveBeenLastCalledWith(kit.grooves[1].id)
  press('Earlier in the list')
  expect(kit.grooves.map(({ name }) => name)).toEqual(['Ebb 2', 'Ebb'])
  press('Clear')
  expect(kit.grooves[0].strings.flatMap(({ beads }) => beads)).toEqual([])
  expect(kit.grooves[1].strings.flatMap(({ beads }) => beads)).toHaveLength(6)
  press('Rename')
  const field = screen.getByRole('textbox', { name: 'Name' })
  fireEvent.change(field, { target: { value: 'Flood' } })
  fireEvent.blur(field)
  expect(kit.grooves[0].name).toBe('Flood')
  press('Delete')
  expect(kit.grooves.map(({ name }) => name)).toEqual(['Ebb'])
  press('New')
  expect(kit.grooves.map(({ name }) => name)).toEqual(['Ebb', 'Groove 1'])
})

test('a song is an order of grooves, each so many laps, and plays when it is asked for', () => {
  show((given) => <GroovesSheet hands={given} onClose={closed} onReady={closed} onBring={closed} onRhythm={closed} />)
  press('Add “Ebb”')
  press('Copy')
  press('Add “Ebb 2”')
  press('One lap more of Ebb, place 1')
  expect(kit.song.map(({ groove, laps }) => [groove, laps])).toEqual([[kit.grooves[0].id, 2], [kit.grooves[1].id, 1]]) // prettier-ignore
  press('Ebb 2, place 2, earlier')
  expect(kit.song.map(({ groove }) => groove)).toEqual([kit.grooves[1].id, kit.grooves[0].id])
  fireEvent.click(screen.getByRole('switch', { name: 'Play the song' }))
  expect(grooveState.getState().isSong).toBe(true)
  press('Take Ebb, place 2, out of the song')
  expect(kit.song).toHaveLength(1)
})

test('how a groove goes: swing, length, division, and tempo by tapping', () => {
  show((given) => <TimingPart hands={given} />)
  nudge('Swing')
  nudge('Length', 'ArrowLeft')
  expect([hands.groove.swing, hands.groove.lengthSteps]).toEqual([0.501, 15])
  press('Twice as long, with its beads')
  expect([hands.groove.lengthSteps, stepsOn(1)]).toEqual([30, [4, 12, 19, 27]]) // prettier-ignore
  choose('8')
  expect([hands.groove.stepsPerBeat, hands.groove.lengthSteps, stepsOn(1)]).toEqual([8, 60, [8, 24, 38, 54]]) // prettier-ignore
  nudge('Steps to a beat', 'ArrowLeft')
  expect([hands.groove.stepsPerBeat, hands.groove.lengthSteps / hands.groove.stepsPerBeat]).toEqual([7, 53 / 7])
  const now = jest.spyOn(performance, 'now')
  for (let tap = 0; tap < 5; tap++) {
    now.mockReturnValue(1000 + tap * 400)
    fireEvent.click(screen.getByRole('button', { name: /^Tap/ }))
  }
  now.mockRestore()
  expect(kit.tempoBpm).toBe(150)
})

test('the feel of another groove is laid over by shares, and taken off', () => {
  const first = aGroovyKit()
  show((given) => <TimingPart hands={given} />, { ...first, grooves: [...first.grooves, { ...first.grooves[0], id: 'groove-2' as never, name: 'Lazy', strings: [] }] }) // prettier-ignore
  choose('Lazy')
  nudge('Its level', 'PageUp')
  nudge('Its timing', 'ArrowLeft')
  expect(hands.groove.feel).toEqual({ grooveId: 'groove-2', timing: 0.99, level: 0.1 })
  choose('Its own')
  expect(hands.groove.feel).toBeUndefined()
})

test('a string has a length, a division and a swing of its own, and goes as its groove again', () => {
  show((given) => <StringSheet hands={given} padId={given.padIds[0]} onClose={closed} />)
  fireEvent.click(screen.getByRole('switch', { name: 'A length of its own' }))
  nudge('Length', 'ArrowLeft')
  fireEvent.click(screen.getByRole('switch', { name: 'Steps of its own' }))
  choose('3')
  const own = () => stringOf(hands.groove, kit.pads[0].id)
  expect(own()).toMatchObject({ lengthSteps: 11, stepsPerBeat: 3 })
  fireEvent.click(screen.getByRole('switch', { name: 'A swing of its own' }))
  nudge('Swing', 'PageUp')
  expect(own().swing).toBe(0.51)
  for (const name of ['A length of its own', 'Steps of its own', 'A swing of its own']) fireEvent.click(screen.getByRole('switch', { name })) // prettier-ignore
  expect(Object.keys(own()).sort()).toEqual(['beads', 'padId'])
  choose('Off-beats')
  expect([hands.chosen.size, closed.mock.calls.length]).toEqual([0, 1])
  press('Take all its beads off')
  expect(stepsOn(0)).toEqual([])
})

test('many are chosen by a rule on the strings that are ticked, and how many is said first', () => {
  show((given) => <ChooseSheet hands={given} onClose={closed} />)
  expect(screen.getByRole('button', { name: 'Choose 6 beads' })).toBeTruthy()
  choose('Every 2nd')
  fireEvent.click(screen.getByRole('checkbox', { name: 'Hull' }))
  press('Choose 2 beads')
  expect([...hands.chosen].sort()).toEqual(['pad-1.0', 'pad-1.8'])
})

test('a ready groove is heard on this kit before it is taken; a fill goes into every fourth lap', () => {
  show((given) => <ReadySheet hands={given} onClose={closed} />)
  press('Hear Making way')
  expect((mockHear.mock.lastCall![0] as Groove).strings.map(({ padId }) => padId)).toEqual(['pad-1', 'pad-2', 'pad-3'])
  expect(kit.grooves).toHaveLength(1)
  fireEvent.click(within(screen.getByRole('group', { name: 'Grooves' })).getAllByRole('button', { name: 'Take' })[0]!)
  expect(kit.grooves.map(({ name }) => name)).toEqual(['Ebb', 'Making way'])
  expect(mockChoose).toHaveBeenLastCalledWith(kit.grooves[1].id) // it alone is seen and played from now on
})

test('a ready groove is heard until it is pressed again, another is heard, or its sheet is gone', () => {
  const { unmount } = show((given) => <ReadySheet hands={given} onClose={closed} />)
  press('Hear Making way')
  expect(screen.queryByRole('button', { name: 'Hear Making way' })).toBeNull()
  press('Stop Making way')
  expect(mockHear).toHaveBeenLastCalledWith(undefined)
  press('Hear Making way')
  expect(mockHear.mock.lastCall![0]).toBeDefined()
  unmount()
  expect(mockHear).toHaveBeenLastCalledWith(undefined)
})

test('a fill is laid in the groove that is seen', () => {
  show((given) => <ReadySheet hands={given} onClose={closed} />)
  fireEvent.click(screen.getAllByRole('button', { name: 'Fill' })[0]!)
  const laps = stringOf(hands.groove, kit.pads[1].id).beads.map(({ when }) => when?.laps?.in.join())
  expect(new Set(laps)).toEqual(new Set(['1,2,3', '4']))
})

test('a groove without beads moves at one tap', () => {
  show((given) => <FirstBeads hands={given} />, aGroovyKit(withBare))
  press('Making way')
  expect(stepsOn(0).length).toBeGreaterThan(1)
  expect([kit.grooves.length, kit.grooves[0].id, mockStart.mock.calls.length]).toEqual([1, 'groove-ebb', 1])
})

test('recording from pads: over or instead, drawn to the steps, a click when asked; it begins with the groove that is seen', () => {
  show((given) => <TakeSheet hands={given} onClose={closed} />)
  choose('Instead of it')
  nudge('Drawn to the steps', 'End')
  fireEvent.click(screen.getByRole('switch', { name: 'A click on every beat' }))
  press('Record')
  expect(takeSettings.getState()).toEqual({ isInstead: true, share: 1, hasClick: true })
  expect(beginTake).toHaveBeenCalledWith('kit-g', hands.groove)
})

test('a MIDI file goes out and comes back as a groove; another file is refused in a sentence', async () => {
  show((given) => <MidiSheet hands={given} onClose={closed} />)
  await act(async () => press('Save “Ebb”'))
  const [name, bytes] = mockSave.mock.lastCall as [string, Uint8Array<ArrayBuffer>]
  expect(name).toBe('K, Ebb.mid')
  mockFiles.push({ name: 'tide.txt', arrayBuffer: () => Promise.resolve(new ArrayBuffer(4)) })
  await act(async () => press('Choose a MIDI file'))
  expect(await screen.findByText('This is no MIDI file: it does not begin with MThd.')).toBeTruthy()
  mockFiles[0] = { name: 'tide.mid', arrayBuffer: () => Promise.resolve(bytes.buffer) }
  await act(async () => press('Choose a MIDI file'))
  expect(await screen.findByText('6 strikes on 2 pads, 4 beats of 4.')).toBeTruthy()
  press('Take “tide”')
  expect(kit.grooves.map((one) => one.name)).toEqual(['Ebb', 'tide'])
})

test('a song beside it is chosen, lined up by beats and ms, and the kit can take its tempo', async () => {
  show((given) => <BackingSheet hands={given} onClose={closed} />)
  mockFiles.push({ name: 'Night ferry.flac', arrayBuffer: () => Promise.resolve(new ArrayBuffer(4)) })
  await act(async () => press('Choose a file'))
  expect(mockBacking).toHaveBeenLastCalledWith('choose', mockFiles[0])
  act(() => backingState.setState({ backing: { name: 'Night ferry', seconds: 200, tempoBpm: 120, firstSeconds: 1, isFound: true } }))
  expect(screen.getByText('“Night ferry” goes at 120 beats a minute.')).toBeTruthy()
  press('A beat later')
  expect(mockBacking).toHaveBeenLastCalledWith('set', { firstSeconds: 1.5 })
  press('10 ms earlier')
  expect(mockBacking).toHaveBeenLastCalledWith('set', { firstSeconds: 0.99 })
  expect(screen.getByText('The groove goes at 96: to stay with it the song plays 20 % slower, and lower.')).toBeTruthy()
  press('The kit takes 120 BPM')
  expect(kit.tempoBpm).toBe(120)
  fireEvent.click(screen.getByRole('switch', { name: 'Play it beside the groove' }))
  expect(mockBacking).toHaveBeenLastCalledWith('turn', false)
  press('Take it away')
  expect(mockBacking).toHaveBeenLastCalledWith('remove')
})
