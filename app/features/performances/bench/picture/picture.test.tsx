import { applyPerformanceEdit } from '@heliaster/core/kit'
import type { Performance, PerformanceEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import type * as vanilla from 'zustand/vanilla'

import { performances } from '../../../../documents'
import { hearing } from '../../../../audio/performances/hear'
import { aPerformance } from '../../../../testing/a-performance'
import { aKitOf, aPad } from '../../../../testing/a-kit'
import { FilmSteps } from './FilmSteps'
import { FilmView } from './FilmView'
import { PicturePart } from './PicturePart'
import { usePicture } from './use-picture'

const mockEdit = jest.fn((..._given: unknown[]) => undefined)
const mockNotify = jest.fn((..._words: unknown[]) => undefined)
const mockFiles = jest.fn((..._asked: unknown[]) => Promise.resolve([new File(['film'], 'slipway.webm')]))
jest.mock('../../../../ui/device/choose-files', () => ({ chooseFiles: (...asked: unknown[]) => mockFiles(...asked) }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (...words: unknown[]) => mockNotify(...words) }))
jest.mock('../../../../audio/engine/sound', () => ({ sound: { getState: () => ({}) } }))
jest.mock('../../../../audio/performances/keep', () => ({}))
jest.mock('../../../../audio/performances/remembering', () => ({ look: () => undefined }))
jest.mock('../../../../audio/performances/resound', () => ({}))
jest.mock('../../../../kit-view/PadFace', () => ({ PadFace: () => null }))
jest.mock('../../../../documents', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  return { performances: { store: createStore(() => ({ entries: {} })), edit: (...given: unknown[]) => mockEdit(...given) } }
})

const kit = aKitOf(aPad(1))
let shown: Performance
function Shown() {
  const [doc, setDoc] = useState(() => aPerformance([['pad-keel', 48_000, 100], ['pad-keel', 96_000, 90]])) // prettier-ignore
  shown = doc
  const edit = (fields: Partial<Performance>) =>
    setDoc((now) => applyPerformanceEdit(now, { type: 'setPerformance', fields } as PerformanceEdit))
  const pictured = usePicture(doc, { edit })
  const { film } = pictured
  return (
    <>
      {film && <FilmView url={film.url} performance={doc} {...pictured} />}
      {film && <FilmSteps performance={doc} pictured={pictured} />}
      <PicturePart kit={kit} performance={doc} pictured={pictured} edit={edit} slide={edit} done={() => undefined} />
    </>
  )
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const timecode = () => screen.getByRole('timer', { name: 'Timecode' }).textContent
const film = () => screen.getByLabelText<HTMLVideoElement>('The film')

let played: string[]
beforeEach(() => {
  jest.clearAllMocks()
  played = []
  HTMLMediaElement.prototype.play = () => (played.push('play'), Promise.resolve())
  HTMLMediaElement.prototype.pause = () => void played.push('pause')
  URL.createObjectURL = () => 'blob:film'
  URL.revokeObjectURL = () => undefined
  hearing.setState({ name: undefined, seconds: 0, lit: [] }, true)
})

async function withFilm(): Promise<void> {
  render(<Shown />)
  await act(async () => press('Choose a film'))
}

test('a film is chosen on this device, and the performance is laid on the picture that is seen', async () => {
  render(<Shown />)
  await act(async () => press('Choose a film'))
  expect(mockFiles).toHaveBeenCalledWith('video/*', false)
  expect(film().src).toContain('blob:film')
  expect(timecode()).toBe('00:00:00:00')
  for (let i = 0; i < 27; i++) press('A picture on')
  press('A picture back')
  expect([timecode(), film().currentTime]).toEqual(['00:00:01:01', 26 / 25])
  press('It begins on this picture')
  expect(shown.picture).toEqual({ rate: '25', startPictures: 0, offsetSeconds: 26 / 25 - 1, film: 'slipway.webm' })
  expect(screen.getByText('What is heard begins at 00:00:01:01.')).toBeTruthy()
})

test('the start of the film is typed as timecode, keeps its words at another rate, and what is none is refused', async () => {
  await withFilm()
  const field = () => screen.getByRole('textbox', { name: 'The film starts at' })
  fireEvent.change(field(), { target: { value: '01:00:00:12' } })
  press('Set')
  expect(shown.picture?.startPictures).toBe(25 * 3600 + 12)
  fireEvent.click(screen.getByRole('radio', { name: '29.97 drop' }))
  expect(timecode()).toBe('01:00:00;12')
  fireEvent.change(field(), { target: { value: '01:01:00;00' } })
  press('Set')
  expect(mockNotify).toHaveBeenLastCalledWith(expect.stringMatching(/^“01:01:00;00” is no timecode at 29\.97 drop/))
  expect(timecode()).toBe('01:00:00;12')
})

test("how a film counts is the same for all that was played to it; where it begins is each performance's own", async () => {
  const lying = { rate: '25', startPictures: 0, offsetSeconds: 4, film: 'slipway.webm' } as const
  const others = [['line', lying], ['elsewhere', { ...lying, film: 'quay.webm' }], ['bare', undefined]] as const // prettier-ignore
  const entries = Object.fromEntries(others.map(([id, picture]) => [id, { doc: { ...aPerformance([['pad-keel', 0, 90]]), id, picture } }]))
  performances.store.setState({ entries } as never)
  await withFilm()
  mockEdit.mockClear()
  press('It begins on this picture')
  expect(mockEdit).not.toHaveBeenCalled()
  fireEvent.click(screen.getByRole('radio', { name: '30' }))
  expect(mockEdit.mock.calls).toEqual([['line', [{ type: 'setPerformance', fields: { picture: { ...lying, rate: '30' } } }]]])
  fireEvent.click(screen.getByRole('radio', { name: '30' }))
  expect(mockEdit).toHaveBeenCalledTimes(1)
  act(() => performances.store.setState({ entries: {} }))
})

test('the film runs with what is heard, is put right where it went astray, and stands when it is over', async () => {
  await withFilm()
  fireEvent.click(screen.getByRole('button', { name: 'It begins on this picture' }))
  act(() => hearing.setState({ name: 'performance-a', seconds: 0, lit: [] }))
  expect(played).toContain('play')
  Object.defineProperty(film(), 'paused', { value: false, configurable: true })
  act(() => hearing.setState({ seconds: 2 }))
  expect(film().currentTime).toBeCloseTo(2)
  film().currentTime = 2.05
  act(() => hearing.setState({ seconds: 2.02 }))
  expect(film().currentTime).toBeCloseTo(2.05) // as good as together
  act(() => hearing.setState({ name: undefined, seconds: 0 }))
  expect(played[played.length - 1]).toBe('pause')
  expect(timecode()).toBe('00:00:02:01')
})

test('any place of the film is gone to, picture by picture by keys; how long one is that does not say so is found at its end', async () => {
  await withFilm()
  expect(screen.queryByRole('slider', { name: 'Place in the film' })).toBeNull()
  const lasts = (seconds: number) => Object.defineProperty(film(), 'duration', { value: seconds, configurable: true })
  lasts(Infinity)
  fireEvent.loadedMetadata(film())
  expect(film().currentTime).toBeGreaterThan(3600)
  lasts(90)
  fireEvent.durationChange(film())
  expect(film().currentTime).toBe(0)
  const place = () => screen.getByRole('slider', { name: 'Place in the film' })
  expect(place().getAttribute('aria-valuemax')).toBe('90')
  fireEvent.keyDown(place(), { key: 'End' })
  expect([timecode(), film().currentTime]).toEqual(['00:01:30:00', 90])
  fireEvent.keyDown(place(), { key: 'ArrowLeft' })
  expect(timecode()).toBe('00:01:29:24')
  fireEvent.keyDown(place(), { key: 'Home' })
  expect([timecode(), film().currentTime]).toEqual(['00:00:00:00', 0])
})

test('the timecode runs with what is heard', async () => {
  await withFilm()
  fireEvent.loadedMetadata(Object.defineProperty(film(), 'duration', { value: 90, configurable: true }))
  act(() => hearing.setState({ name: 'film', seconds: 12.5, lit: [] }))
  expect(timecode()).toBe('00:00:12:12')
  expect(screen.queryByRole('slider', { name: 'Place in the film' })).toBeNull()
})
