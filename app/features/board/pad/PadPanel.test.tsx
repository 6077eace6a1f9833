import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { missingAudio } from '../../../audio/files/audio-files'
import { session } from '../../../kit-view/session'
import { aKitOf, aPad, audio } from '../../../testing/a-kit'
import { PadPanel } from './PadPanel'

let mockEdit: (edits: KitEdit[]) => void
const mockHeard = jest.fn()
const mockStrike = jest.fn()
const mockNotify = jest.fn()
jest.mock('../../../kit-view', () => ({
  editKit: (_id: unknown, edits: KitEdit[], hear?: string) => {
    mockHeard(hear)
    mockEdit(edits)
  },
  useSession: jest.requireActual<typeof import('../../../kit-view/session')>('../../../kit-view/session').useSession, // eslint-disable-line @typescript-eslint/consistent-type-imports
}))
jest.mock('../../../audio/engine/sound', () => ({ strikePad: (strike: object) => mockStrike(strike), releasePad: () => undefined }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('./cells/PadCells', () => ({ PadCells: () => 'its cells' }))
jest.mock('./playing/PadPlaying', () => ({ PadPlaying: () => 'how it plays' }))
jest.mock('./playing/PadLevel', () => ({ PadLevel: () => 'how loud' }))
jest.mock('./drum/DrumPart', () => ({ DrumPart: () => 'its drum' }))
jest.mock('./rays/RaysPanel', () => ({ RaysPanel: () => 'its rays' }))
jest.mock('./TakeApart', () => ({ TakeApart: () => null }))
jest.mock('../several/PadsSheet', () => ({ PadsSheet: ({ chosen }: { chosen: string[] }) => `${chosen.length} together` }))

let kit: Kit
function Shown({ of, at = 0 }: { readonly of: Kit; readonly at?: number }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return doc.pads[at] ? <PadPanel kit={doc} pad={doc.pads[at]} /> : null
}
const three = () => aKitOf(...['Oar', 'Cleat', 'Winch'].map((name, i): Pad => ({ ...aPad(2), notes: [40 + i], own: { name } })))
const names = () => kit.pads.map((pad) => padSettings(kit, pad).name)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const isAsleep = (name: string) => screen.getByRole('button', { name }).getAttribute('aria-disabled') === 'true'
function type(label: string, text: string) {
  const field = screen.getByLabelText(label)
  fireEvent.focus(field)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}

beforeEach(() => {
  jest.clearAllMocks()
  session.setState({ padPart: 'cells', padId: undefined })
  missingAudio.setState({}, true)
})

test('a name is taken without what stands about it, and a note that is none becomes the nearest, which is said', () => {
  render(<Shown of={three()} />)
  type('Name', `  ${'Keel '.repeat(40)}`)
  expect(names()[0]).toBe('Keel '.repeat(24).trimStart().slice(0, 120))
  expect(mockHeard).toHaveBeenLastCalledWith(kit.pads[0]!.id)
  type('MIDI note', '200')
  expect(kit.pads[0]!.notes).toEqual([127])
  expect(mockNotify.mock.lastCall![0]).toMatch(/0 to 127.*127, G/)
  type('MIDI note', '-3')
  expect(kit.pads[0]!.notes).toEqual([0])
})

test('a second note stays when the first is changed', () => {
  const of = three()
  render(<Shown of={{ ...of, pads: [{ ...of.pads[0]!, notes: [40, 52] }] }} />)
  type('MIDI note', '41')
  expect(kit.pads[0]!.notes).toEqual([41, 52])
})

test('a pad that answers no note says so until it is given one', () => {
  const [pad] = three().pads as [Pad]
  render(<Shown of={aKitOf({ ...pad, notes: [] })} />)
  expect(screen.getByText('none')).toBeTruthy()
  type('MIDI note', '41')
  expect(kit.pads[0]!.notes).toEqual([41])
  expect(screen.queryByText('none')).toBeNull()
})

test('it moves among the others, as far as there are any', () => {
  render(<Shown of={three()} at={1} />)
  press('Move the pad forward')
  expect(names()).toEqual(['Cleat', 'Oar', 'Winch'])
  press('Move the pad back') // of what lies in its place now
  expect(names()).toEqual(['Cleat', 'Winch', 'Oar'])
})

test('the first cannot go further forward, nor the last further back', () => {
  const { unmount } = render(<Shown of={three()} />)
  expect([isAsleep('Move the pad forward'), isAsleep('Move the pad back')]).toEqual([true, false])
  unmount()
  render(<Shown of={three()} at={2} />)
  expect([isAsleep('Move the pad forward'), isAsleep('Move the pad back')]).toEqual([false, true])
})

test('a copy lies right behind it, has a note of its own and is worked on next', () => {
  render(<Shown of={three()} />)
  press('Duplicate')
  expect(names()).toEqual(['Oar', 'Oar copy', 'Cleat', 'Winch'])
  expect(session.getState().padId).toBe(kit.pads[1]!.id)
  expect(mockHeard).toHaveBeenLastCalledWith(kit.pads[1]!.id)
  expect(new Set(kit.pads.flatMap(({ notes }) => notes)).size).toBe(4)
})

test('it is cleared, which then has nothing more to do, and removed without being heard', () => {
  render(<Shown of={three()} />)
  press('Clear')
  expect(kit.pads[0]!.bands).toEqual([])
  expect(isAsleep('Clear')).toBe(true)
  press('Remove pad')
  expect(names()).toEqual(['Cleat', 'Winch'])
  expect(mockHeard).toHaveBeenLastCalledWith(undefined)
})

test('each word shows its part, which stays from pad to pad; rays are counted', () => {
  const of = three()
  const [first] = of.pads as [Pad]
  render(<Shown of={{ ...of, pads: [{ ...first, rays: [first.rays[0]!, { ...first.rays[0]!, id: 'ray-x' as never }] }] }} />)
  const shown = ['Playing', 'Level', '2 rays', 'Drum', 'Cells'].map((word) => {
    fireEvent.click(screen.getByRole('radio', { name: word }))
    return ['its cells', 'how it plays', 'how loud', 'its rays', 'its drum'].filter((text) => screen.queryByText(text, { exact: false }))
  })
  expect(shown).toEqual([['how it plays'], ['how loud'], ['its rays'], ['its drum'], ['its cells']])
  expect(session.getState().padPart).toBe('cells')
})

test('while a large kit is opened its name and its parts stand first, and can be chosen; what they show comes after', () => {
  const of = three()
  const pad = of.pads[0]!
  const { rerender } = render(<PadPanel kit={of} pad={pad} isHead />)
  expect(screen.getByLabelText('Name')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Level' }))
  expect([screen.queryByText('how loud', { exact: false }), screen.queryByRole('button', { name: 'Duplicate' })]).toEqual([null, null])
  rerender(<PadPanel kit={of} pad={pad} />)
  expect(screen.getByText('how loud', { exact: false })).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Duplicate' })).toBeTruthy()
})

test('a group of several is edited together; a pad alone in its group is not', () => {
  const of = three()
  const inGroup = (pad: Pad, group?: string): Pad => ({ ...pad, own: { ...pad.own, group } })
  const { unmount } = render(<Shown of={{ ...of, pads: [inGroup(of.pads[0]!, 'Ropes'), inGroup(of.pads[1]!), inGroup(of.pads[2]!, 'Ropes')] }} />) // prettier-ignore
  press('Edit all of Ropes')
  expect(screen.getByText(/2 together/)).toBeTruthy()
  unmount()
  render(<Shown of={{ ...of, pads: [inGroup(of.pads[0]!, 'Ropes'), of.pads[1]!] }} />)
  expect(screen.queryByRole('button', { name: /^Edit all/ })).toBeNull()
})

test('a file that cannot be had is told at once, and only of the pad that needs it', () => {
  render(<Shown of={three()} />)
  expect(screen.queryByRole('alert')).toBeNull()
  act(() => missingAudio.setState({ [audio]: 'oar.wav is not on this device.' }))
  expect(screen.getByRole('alert').textContent).toBe('oar.wav is not on this device.')
  act(() => missingAudio.setState({ ['e'.repeat(64)]: 'Another.' }, true))
  expect(screen.queryByRole('alert')).toBeNull()
})

test('a velocity to strike at is kept between 1 and 127 and sounds as it is typed', () => {
  render(<Shown of={three()} />)
  type('Velocity to strike at', '300')
  type('Velocity to strike at', '0')
  type('Velocity to strike at', '40.4')
  expect(mockStrike.mock.calls.map(([{ velocity }]) => velocity)).toEqual([127, 1, 40])
  expect(screen.getByRole('button', { name: 'Strike at 40' })).toBeTruthy()
})
