import { applyEdit, createRay, valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad } from '../../../../testing/a-kit'
import { RayPanel } from './RayPanel'

let mockEdit: (edits: KitEdit[]) => void
const mockNotify = jest.fn()
let mockGained: () => Promise<number>
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('./compare-polarity', () => ({ bottomGained: () => mockGained() }))

let kit: Kit
const ended = jest.fn()
const removed = jest.fn()
function Shown({ of, at }: { readonly of: Pad; readonly at: number }) {
  const [doc, setDoc] = useState(() => aKitOf(of))
  kit = doc
  mockEdit = (edits) => setDoc((now) => (kit = edits.reduce(applyEdit, now)))
  const gesture = { set: (edits: KitEdit[]) => mockEdit(edits), end: ended }
  return doc.pads[0].rays[at] ? (
    <RayPanel kit={doc} pad={doc.pads[0]} ray={doc.pads[0].rays[at]} gesture={gesture} onRemoved={removed} />
  ) : null
}
const near = aPad(2)
const two: Pad = { ...near, rays: [{ ...near.rays[0], name: 'Near' }, createRay(makeId, 'Far')] }
const show = (of: Pad = two, at = 1) => render(<Shown of={of} at={at} />)
const ray = (at = 1) => kit.pads[0].rays[at]
const nudge = (name: string, key = 'End') => fireEvent.keyDown(screen.getByRole('slider', { name }), { key })
const flick = (name: string) => fireEvent.click(screen.getByRole('switch', { name }))
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (group: string, name: string) =>
  fireEvent.click(within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name }))

beforeEach(() => jest.clearAllMocks())

test('what is set touches this ray alone, each drag one step', () => {
  show()
  nudge('Delay')
  nudge('Follows the bend, two semitones each way')
  nudge('Follows the note, once the pad has a root note')
  nudge('Pan', 'Home')
  expect(['delaySeconds', 'bendTrack', 'keyTrack', 'pan'].map((name) => valueOf(ray(), name as 'pan'))).toEqual([1, 1, 1, -1])
  expect(ended).toHaveBeenCalledTimes(4)
  expect(ray(0)).toEqual(two.rays[0])
})

test('its name is what is more than spaces, and no longer than can be kept', () => {
  show()
  const field = screen.getByRole('textbox', { name: 'Name of the ray' })
  fireEvent.change(field, { target: { value: `  ${'x'.repeat(200)}` } })
  fireEvent.blur(field)
  expect(ray().name).toBe('x'.repeat(120))
})

test('which way up it sounds is flipped, and measured when that is asked; a flip forgets what was measured', async () => {
  show()
  mockGained = () => Promise.resolve(-3.25)
  await act(async () => press('Which way has more bottom?'))
  expect(screen.getByText('The other way has 3.3 dB less under 150 Hz.')).toBeTruthy()
  flick('Flip polarity')
  expect([ray().invert, screen.queryByText(/^The other way/)]).toEqual([true, null])
  mockGained = () => Promise.reject(new Error('A file of it is missing.'))
  await act(async () => press('Which way has more bottom?'))
  expect(screen.getByText('A file of it is missing.')).toBeTruthy()
})

test('a ray among others shares their cells or has its own; what would be lost by sharing stays, and that is said', () => {
  show()
  flick('Bands and turns of its own')
  expect(ray().source).toMatchObject({ kind: 'clips', bands: expect.any(Array) })
  expect(screen.queryByRole('switch', { name: 'A microphone of the same strike' })).toBeNull()
  choose('Its next turn', 'Random')
  expect(ray().source).toMatchObject({ pick: 'random' })
  choose('Its next turn', 'As the pad')
  expect('pick' in ray().source).toBe(false)
  flick('Bands and turns of its own')
  expect(ray().source).toEqual({ kind: 'clips' })
})

test('where it is a microphone it says what it does without a clip', () => {
  show()
  flick('A microphone of the same strike')
  choose('Where it has no clip, it', 'Takes the nearest band’s')
  expect(ray()).toMatchObject({ microphone: true, onMissing: 'nearest' })
})

test('it goes to a bus of its own and back to where the pad goes', () => {
  show()
  choose('Goes to', 'A new bus')
  expect([kit.buses[0].name, ray().bus]).toEqual(['Far', kit.buses[0].id])
  choose('Goes to', 'The mix')
  expect(ray().bus).toBeUndefined()
})

test('it is removed, but the last one stays', () => {
  const { unmount } = show()
  press('Remove Far')
  expect([kit.pads[0].rays.map(({ name }) => name), removed.mock.calls.length]).toEqual([['Near'], 1])
  unmount()
  show({ ...two, rays: two.rays.slice(0, 1) }, 0)
  expect(screen.getByRole('button', { name: 'Remove Near' }).getAttribute('aria-disabled')).toBe('true')
  expect(screen.queryByRole('button', { name: 'Which way has more bottom?' })).toBeNull()
})
