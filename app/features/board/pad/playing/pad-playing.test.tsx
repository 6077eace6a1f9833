import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import type { SpotsTie } from '@heliaster/core/ties'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { missingAudio } from '../../../../audio/files/audio-files'
import { middleC } from '../../../../kit-view/note-name'
import { session } from '../../../../kit-view/session'
import { aKitOf, aPad, audio } from '../../../../testing/a-kit'
import { EmptyCells } from '../cells/EmptyCells'
import { DrumFace } from '../../pads/DrumFace'
import { PadCard } from '../../pads/PadCard'
import { PadPlaying } from './PadPlaying'

let mockEdit: (edits: KitEdit[]) => void
const mockEnd = jest.fn()
const mockFaces = new Map<string, { size: number; chosen: boolean; behind: unknown[]; words?: string; index: number }>()
jest.mock('../../../../kit-view', () => ({
  editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits),
  useSession: jest.requireActual<typeof import('../../../../kit-view/session')>('../../../../kit-view/session').useSession, // eslint-disable-line @typescript-eslint/consistent-type-imports
}))
jest.mock('../../../../kit-view/use-kit', () => ({
  padGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => mockEnd() as unknown }),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))
jest.mock('../../../../kit-view/TestStrikes', () => ({ TestStrikes: () => null }))
jest.mock('../../../../kit-view/PadNotes', () => ({ PadNotes: () => null }))
jest.mock('../../../../kit-view/PadFace', () => ({
  PadFace: (props: { pad: { id: string }; size: number; chosen: boolean; behind: unknown[]; words?: string; index: number }) => {
    mockFaces.set(props.pad.id, props)
    return null
  },
}))
jest.mock('../ties/ChokeChips', () => ({ ChokeChips: () => null }))
jest.mock('../ties/LinkChips', () => ({ LinkChips: () => null }))
jest.mock('./GoesOn', () => ({ GoesOn: () => null }))
jest.mock('./TurnRules', () => ({ TurnRules: () => null }))

let kit: Kit
function Shown({ of }: { readonly of: Kit }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <PadPlaying kit={doc} pad={doc.pads[0]!} />
}
const named = (name: string, turns = 1): Pad => ({ ...aPad(turns), own: { name } })
const settings = () => padSettings(kit, kit.pads[0]!)
const choose = (group: string, name: string) =>
  fireEvent.click([...screen.getByRole('radiogroup', { name: group }).querySelectorAll('[role="radio"]')].find((one) => one.textContent === name)!) // prettier-ignore

beforeEach(() => {
  jest.clearAllMocks()
  mockFaces.clear()
  missingAudio.setState({}, true)
  session.setState({ lit: {}, silent: undefined })
})

test('how turns follow each other, what a strike does and how many sound at once are set of this pad alone', () => {
  render(<Shown of={aKitOf(named('Oar', 3), named('Cleat'))} />)
  const other = kit.pads[1]
  const groups = ['Next turn', 'When struck'].map((group) => {
    const words = [...screen.getByRole('radiogroup', { name: group }).querySelectorAll('[role="radio"]')].map((one) => one.textContent!)
    const set = words.map((word) => {
      choose(group, word)
      return group === 'Next turn' ? settings().pick : settings().mode
    })
    expect(new Set(set).size).toBe(words.length)
    return words.length
  })
  expect(groups.every((count) => count > 1)).toBe(true)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes at once' }), { key: 'Home' })
  expect(settings().maxStrikes).toBe(1)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes at once' }), { key: 'ArrowRight' })
  expect(settings().maxStrikes).toBe(2)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes at once' }), { key: 'End' })
  expect(settings().maxStrikes).toBe(32)
  expect(mockEnd).toHaveBeenCalled()
  expect(kit.pads[1]).toBe(other)
})

test('what middle C is called is chosen for everywhere', () => {
  render(<Shown of={aKitOf(named('Oar'))} />)
  for (const [name, octave] of [['C5', 5], ['C3', 3]] as const) {
    choose('Middle C, note 60, is called (everywhere)', name)
    expect(middleC.getState().octave).toBe(octave)
  }
}) // prettier-ignore

describe('the pad struck last', () => {
  const open = jest.fn()
  const card = (of: Kit) => render(<PadCard kit={of} pad={of.pads[0]!} onOpen={open} />)
  const says = () => screen.getByText('Oar').nextElementSibling!.textContent

  test('says how it is filled, then what sounded, then why it was silent, and first of all what is missing', () => {
    const of = aKitOf(named('Oar', 3))
    card(of)
    expect(says()).toBe('1 band, 3 turns')
    act(() => session.setState({ lit: { [of.pads[0]!.id]: { band: 0, turn: 1, at: 1, velocity: 90 } } }))
    expect(says()).toBe('band 1, turn 2 sounded')
    act(() => session.setState({ silent: { padId: 'another' as never, why: 'silent: another' } }))
    expect(says()).toBe('band 1, turn 2 sounded')
    act(() => session.setState({ silent: { padId: of.pads[0]!.id, why: 'silent: the pad is muted' } }))
    expect(says()).toBe('silent: the pad is muted')
    act(() => missingAudio.setState({ [audio]: 'oar.wav is not on this device.' }))
    expect(says()).toBe('oar.wav is not on this device.')
    fireEvent.click(screen.getByRole('button', { name: 'Open pad' }))
    expect(open).toHaveBeenCalledTimes(1)
  })

  test('a strike that no cell answered says nothing of cells', () => {
    const of = aKitOf(named('Oar', 0))
    act(() => session.setState({ lit: { [of.pads[0]!.id]: { band: -1, turn: -1, at: 1, velocity: 90 } } }))
    card(of)
    expect(says()).toBe('empty, so it is silent')
  })
})

test('an empty pad says what it sounds all the same: nothing, or what the spot beside it does', () => {
  const [oar, rim] = [named('Oar', 2), named('Rim', 0)]
  const drum: SpotsTie = { id: 'tie-1' as never, kind: 'spots', spots: [{ pad: oar.id }, { pad: rim.id }] } as never
  const lone = aKitOf(rim)
  const { unmount } = render(<EmptyCells kit={lone} pad={rim} ray="Keel" />)
  expect(screen.getByText(/^Nothing is on this pad, so it is silent/)).toBeTruthy()
  unmount()
  const two = { ...rim, rays: [rim.rays[0]!, { ...rim.rays[0]!, id: 'ray-2' as never }] }
  const second = render(<EmptyCells kit={aKitOf(two)} pad={two} ray="Keel" />)
  expect(screen.getByText(/^Nothing is on Keel/)).toBeTruthy()
  second.unmount()
  const of = { ...aKitOf(oar, rim), ties: [drum] }
  render(<EmptyCells kit={of} pad={rim} ray="Keel" />)
  expect(screen.getByText(/it sounds as Oar, until it has clips of its own/)).toBeTruthy()
})

test('a drum’s face holds its spots side by side under one name, and is marked when any of them, or of what they open to, is chosen', () => {
  const pads = ['Bow', 'Edge', 'Half open'].map((name) => named(name))
  const [bow, edge, half] = pads as [Pad, Pad, Pad]
  const drum = { id: 'tie-1', kind: 'spots', spots: [{ pad: bow.id, name: 'The bow' }, { pad: edge.id }] } as unknown as SpotsTie
  const of = aKitOf(...pads)
  const face = (behind: Pad[][], chosen?: Pad, name?: string) => (
    <DrumFace kit={of} pads={[bow, edge]} behind={behind} drum={{ ...drum, name } as SpotsTie} width={160} size={80} chosen={chosen?.id} />
  )
  const { rerender } = render(face([[], []]))
  expect(screen.getByRole('group', { name: 'Bow, 2 spots' })).toBeTruthy()
  expect([mockFaces.get(bow.id)!.words, mockFaces.get(edge.id)!.index, mockFaces.get(bow.id)!.chosen]).toEqual(['The bow', 1, false])
  expect(mockFaces.get(bow.id)!.size).toBeLessThanOrEqual(80)
  rerender(face([[], [half]], half, 'Deck drum'))
  expect(screen.getByRole('group', { name: 'Deck drum, 2 spots, 2 openings' })).toBeTruthy()
  expect([mockFaces.get(bow.id)!.chosen, mockFaces.get(edge.id)!.chosen]).toEqual([false, true])
})
