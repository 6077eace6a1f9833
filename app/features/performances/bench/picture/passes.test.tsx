import { applyPerformanceEdit } from '@heliaster/core/kit'
import type { Performance, PerformanceEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'
import type * as vanilla from 'zustand/vanilla'

import { FILM, hearing } from '../../../../audio/performances/hear'
import { aKitOf, aPad } from '../../../../testing/a-kit'
import { aPerformance } from '../../../../testing/a-performance'
import { FilmSteps } from './FilmSteps'
import { putFilm } from './films'
import { PicturePart } from './PicturePart'
import { usePicture } from './use-picture'

const mockNotify = jest.fn((..._words: unknown[]) => undefined)
const mockRun = jest.fn((_seconds: number, _against: unknown) => 900_000 as number | undefined)
const mockKeep = jest.fn((_kit: unknown, _stretch: unknown): Promise<Performance | string> => Promise.resolve(''))
const mockSaved = jest.fn((..._file: unknown[]) => undefined)
const mockCreated: Performance[] = []
jest.mock('../../../../ui/device/choose-files', () => ({ saveFile: (...file: unknown[]) => mockSaved(...file) }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (...words: unknown[]) => mockNotify(...words) }))
jest.mock('../../../../audio/engine/sound', () => ({ sound: { getState: () => ({ player: { frameNow: () => 895_000 } }) } }))
jest.mock('../../../../audio/performances/hear', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  const hearing = createStore(() => ({ name: undefined as string | undefined, seconds: 0, lit: [] }))
  return {
    FILM: 'film',
    hearing,
    runFilm: (seconds: number, against: unknown) => (hearing.setState({ name: 'film', seconds }), mockRun(seconds, against)),
    stopHearing: () => hearing.setState({ name: undefined }),
  }
})
jest.mock('../../../../audio/performances/keep', () => ({ passageToKeep: (kit: unknown, stretch: unknown) => mockKeep(kit, stretch) }))
jest.mock('../../../../audio/performances/remembering', () => ({ lookToEnd: () => Promise.resolve(1_100_000) }))
jest.mock('../../../../audio/performances/resound', () => ({
  resound: () => Promise.resolve({ audio: { sampleRateHz: 48000, channels: [new Float32Array(10), new Float32Array(10)] }, fell: [] }),
  resoundedWav: () => Promise.resolve(new ArrayBuffer(4)),
}))
jest.mock('../../../../kit-view/PadFace', () => ({ PadFace: () => null }))
jest.mock('../../../../documents', () => {
  const { createStore } = jest.requireActual<typeof vanilla>('zustand/vanilla')
  const store = createStore<{ entries: Record<string, { doc: Performance }> }>(() => ({ entries: {} }))
  return {
    performances: {
      store,
      create: (doc: Performance) => void mockCreated.push(doc),
      edit: (id: string, edits: PerformanceEdit[]) => mockEdit(id, edits),
    },
  }
})
let mockEdit: (id: string, edits: PerformanceEdit[]) => void

const kit = aKitOf(aPad(1))
const picture = { rate: '25', startPictures: 0, offsetSeconds: 2, film: 'slipway.webm' } as const
let shown: Performance
function Shown() {
  const [doc, setDoc] = useState(() => ({ ...aPerformance([['pad-keel', 48_000, 100], ['pad-keel', 96_000, 90]]), picture }) as Performance) // prettier-ignore
  shown = doc
  const edit = (fields: Partial<Performance>) =>
    setDoc((now) => applyPerformanceEdit(now, { type: 'setPerformance', fields } as PerformanceEdit))
  mockEdit = (id, edits) => id === doc.id && setDoc((now) => edits.reduce(applyPerformanceEdit, now))
  const pictured = usePicture(doc, { edit })
  return (
    <>
      <FilmSteps performance={doc} pictured={pictured} />
      <PicturePart kit={kit} performance={doc} pictured={pictured} edit={edit} slide={edit} done={() => undefined} />
    </>
  )
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const cloth = { ...aPerformance([['pad-keel', 9600, 80]]), id: 'performance-b', name: 'Cloth', picture: { ...picture, offsetSeconds: 0 } } as Performance // prettier-ignore

beforeEach(async () => {
  jest.clearAllMocks()
  mockCreated.length = 0
  hearing.setState({ name: undefined, seconds: 0, lit: [] })
  URL.createObjectURL = () => 'blob:film'
  URL.revokeObjectURL = () => undefined
  putFilm(new File(['film'], 'slipway.webm'))
  const { performances } = jest.requireMock<{ performances: { store: vanilla.StoreApi<unknown> } }>('../../../../documents')
  performances.store.setState({ entries: { [cloth.id]: { doc: cloth } } })
  render(<Shown />)
})

test('lines of a film are heard together from where it stands, but those that are put out, and leave one by one', async () => {
  const list = screen.getByRole('list', { name: 'Lines of this film' })
  expect(within(list).getAllByRole('checkbox').map(({ textContent }) => textContent)).toEqual(['✓ Cloth', '✓ Slipway 1']) // prettier-ignore
  await act(async () => press('Hear these lines from here'))
  expect(mockRun).toHaveBeenLastCalledWith(3, expect.objectContaining({ filmSeconds: 0.2 }))
  press('Stop the film')
  fireEvent.click(screen.getByRole('checkbox', { name: 'Cloth' }))
  await act(async () => press('Hear these lines from here'))
  expect(mockRun).toHaveBeenLastCalledWith(3, expect.objectContaining({ filmSeconds: 3 }))
  press('Stop the film')
  fireEvent.click(screen.getByRole('checkbox', { name: 'Cloth' }))
  await act(async () => press('A WAV for each line'))
  expect(mockSaved.mock.calls.map(([name]) => name)).toEqual(['Cloth.wav', 'Slipway 1.wav'])
})

test('places are marked, gone to and taken away', () => {
  fireEvent.change(screen.getByRole('textbox', { name: 'Name of the mark' }), { target: { value: 'Heel' } })
  press('Mark this picture')
  expect(shown.picture!.marks).toEqual([{ seconds: 3, name: 'Heel' }])
  press('A picture on')
  expect(screen.getByLabelText('Timecode').textContent).toBe('00:00:03:01')
  press('Go to Heel')
  expect(screen.getByLabelText('Timecode').textContent).toBe('00:00:03:00')
  press('Remove the mark Heel')
  expect(shown.picture!.marks).toBeUndefined()
})

/** A pass as it is remembered: begun at the frame that the film began at, struck half a second and two later; played to 5,000 frames before. */
const remembered = () => ({ ...aPerformance([['pad-keel', 29_000, 70], ['pad-keel', 101_000, 60]]), id: 'performance-c', name: 'Low Tide 3', fromFrame: 0 }) as Performance // prettier-ignore

test('a pass is a line of its own where it was played in the film; nothing struck is nothing kept', async () => {
  mockKeep.mockResolvedValueOnce(remembered())
  await act(async () => press('Play a pass from this picture'))
  expect(screen.getByText(/^The film runs, and what you play is kept/)).toBeTruthy()
  act(() => hearing.setState({ name: FILM, seconds: 6 }))
  await act(async () => press('End the pass'))
  expect(mockKeep.mock.lastCall![1]).toMatchObject({ fromFrame: 895_000, toFrame: 1_100_000 })
  expect(mockCreated.map(({ picture: at, fromFrame }) => [at!.offsetSeconds + fromFrame / 48000, at!.film])).toEqual([
    [3.5, 'slipway.webm'],
  ])
  expect(mockNotify).toHaveBeenLastCalledWith('Kept as “Low Tide 3”, a line of its own with 2 strikes.')
  mockKeep.mockResolvedValueOnce({ ...remembered(), fromFrame: 400_000, toFrame: 500_000 })
  await act(async () => press('Play a pass from this picture'))
  await act(async () => press('End the pass'))
  expect(mockNotify).toHaveBeenLastCalledWith('Nothing was struck while the film ran, so nothing was kept.')
})

test('what is struck while the film still stands is struck on its first picture', async () => {
  const early = aPerformance([['pad-keel', 1200, 70], ['pad-keel', 29_000, 60]]) // prettier-ignore
  mockKeep.mockResolvedValueOnce({ ...early, id: 'performance-d', name: 'Low Tide 4', fromFrame: 0 } as Performance)
  await act(async () => press('Play a pass from this picture'))
  await act(async () => press('End the pass'))
  const [pass] = mockCreated
  const struck = pass!.events.flatMap((event) => (event.type === 'strike' ? [event.frame / 48000 + pass!.picture!.offsetSeconds] : []))
  expect(struck).toEqual([3, 3.5])
  expect(mockNotify).toHaveBeenLastCalledWith('Kept as “Low Tide 4”, a line of its own with 2 strikes.')
})

test('punched in, what is played stands in the line in place of what was there', async () => {
  mockKeep.mockResolvedValueOnce(remembered())
  fireEvent.click(screen.getByRole('radio', { name: /^Into this line/ }))
  await act(async () => press('Play a pass from this picture'))
  act(() => hearing.setState({ name: FILM, seconds: 3.8 }))
  await act(async () => press('End the pass'))
  const struck = shown.events.flatMap((event) => (event.type === 'strike' ? [[event.frame / 48000 + 2, event.velocity]] : []))
  expect(struck).toEqual([[3.5, 70], [4, 90]]) // prettier-ignore
  expect(shown.edited).toBe(true)
})
