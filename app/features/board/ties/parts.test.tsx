import { applyEdit, createKit, wholeClip } from '@heliaster/core/kit'
import type { AudioHash, Kit, KitEdit } from '@heliaster/core/kit'
import { laidInParts, partSpans } from '@heliaster/core/ties'
import type { PartsTie } from '@heliaster/core/ties'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../documents/make-id'
import { session } from '../../../kit-view/session'
import { layOut } from '../../../testing/lay-out'
import { TieSettings } from './TieSettings'

let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn((_clip: { startFrame: number; endFrame: number }) => Promise.resolve())
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))
jest.mock('../../../audio/engine/sound', () => ({ hearClip: (clip: { startFrame: number; endFrame: number }) => mockHear(clip) }))
jest.mock('../../../audio/files/audio-files', () => ({ decodedAudio: () => new Promise(() => undefined) }))

const audio = 'd'.repeat(64) as AudioHash
const info = { name: 'rope.wav', sampleRateHz: 48000, frames: 96_000, channels: 1 }
let kit: Kit
const tie = () => kit.ties[0] as PartsTie
const ends = () => partSpans(tie()).map(({ endFrame }) => endFrame)

function Shown() {
  const [doc, setDoc] = useState<Kit>(() => {
    const empty = createKit(makeId, 'Parts')
    return laidInParts(makeId, empty, { name: 'Rope', clip: wholeClip(audio, info), audio, info }, 4).edits.reduce(applyEdit, empty)
  })
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <TieSettings kit={doc} tie={doc.ties[0]!} />
}
function pointer(type: string, x: number) {
  const event = new MouseEvent(type, { bubbles: true, clientX: x, clientY: 40 })
  fireEvent(screen.getByTestId('parts'), Object.assign(event, { pointerId: 1, pointerType: 'mouse' }))
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  Element.prototype.setPointerCapture = () => undefined
  session.setState({ lit: {}, sounding: [] })
  render(<Shown />)
  layOut(420, 96) // ten px at each end: a part is 100 px, 24000 frames
})

test('a tap on the wave hears a part and says where it lies; it goes to another pad, and two on one take turns', () => {
  pointer('pointerdown', 260)
  pointer('pointerup', 260)
  expect(mockHear.mock.lastCall![0]).toMatchObject({ startFrame: 48_000, endFrame: 72_000 })
  expect(screen.getByText('Part 3 of 4: 1.000 to 1.500 s')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Rope 1' }))
  expect(tie().parts[2]!.pad).toBe(kit.pads[0]!.id)
  expect(screen.getByText('2 parts lie on Rope 1; each strike sounds the next.')).toBeTruthy()
})

test('borders are drawn, moved by keys, and even again; parts are parted and joined', () => {
  pointer('pointerdown', 112)
  pointer('pointermove', 160)
  pointer('pointerup', 160)
  expect(ends()).toEqual([36_000, 48_000, 72_000, 96_000])
  expect(mockHear).not.toHaveBeenCalled()
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Border behind part 3' }), { key: 'ArrowLeft', shiftKey: true })
  expect(ends()[2]).toBe(72_000 - 480)
  press('Part it in two')
  expect(ends()).toEqual([18_000, 36_000, 48_000, 71_520, 96_000])
  press('Join it to its neighbour')
  expect(ends()).toEqual([36_000, 48_000, 71_520, 96_000])
  press('Even parts')
  expect(ends()).toEqual([24_000, 48_000, 72_000, 96_000])
})

test('the part that sounds is lit on the wave', () => {
  const fills = () => [...screen.getByTestId('parts').querySelectorAll('rect')].map((rect) => rect.getAttribute('fill'))
  const before = fills()
  const [, second] = kit.pads
  act(() => session.setState({ sounding: [second!.id], lit: { [second!.id]: { band: 0, turn: 0, at: 0, velocity: 90 } } as never }))
  const changed = fills().flatMap((fill, i) => (fill === before[i] ? [] : [i]))
  expect(changed).toEqual([1])
})

test('strikes begin in time where it is asked for, and at once again', () => {
  expect(screen.getByText('As soon as it is struck.')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Next beat' }))
  expect(tie().startsEveryBeats).toBe(1)
  expect(screen.getByText(/^In step with the groove/)).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'At once' }))
  expect('startsEveryBeats' in tie()).toBe(false)
})
