import type { Kit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'

import { aKitOf, aPad, audio, info } from '../../testing/a-kit'
import { chooseTheme } from '../../ui/theme/theme'
import { changedWords } from './changed-words'
import { createEmptyKit, deleteKit, duplicateKit, openBundleFile, renameKit } from './kit-actions'
import { KitsScreen } from './KitsScreen'

const mockNavigate = jest.fn()
const mockSeen = { isSeen: true }
const mockNotify = jest.fn()
const mockKeep = jest.fn()
const mockFetch = jest.fn()
const mockStop = jest.fn()
const mockHear = jest.fn<() => void, [Kit, () => void]>(() => mockStop)
jest.mock('./rooms-later', () => ({ fetchRooms: () => undefined }))
jest.mock('./hear-later', () => ({
  hearLater: async () => ({ startSound: () => undefined, hearKit: (kit: Kit, onEnd: () => void) => mockHear(kit, onEnd) }),
}))
let mockFiles: File[] = []
const mockShip = { open: jest.fn(), take: jest.fn(), close: jest.fn() }
jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockNavigate(to) }, useIsFocused: () => mockSeen.isSeen }))
jest.mock('../../ui/layout/notices', () => ({ notify: (...given: unknown[]) => mockNotify(...given) as unknown }))
jest.mock('../../ui/device/choose-files', () => ({ chooseFiles: async () => mockFiles }))
jest.mock('../../audio/files/audio-files', () => ({ keepAudio: (...given: unknown[]) => mockKeep(...given) as unknown }))
jest.mock('../../audio/workers/workers', () => ({ shipWork: () => mockShip }))
jest.mock('../../shell', () => ({ SaveMark: () => null }))
jest.mock('../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const store = createStore<{ entries: Record<string, unknown>; elsewhere: object; loaded: boolean }>(() => ({
    entries: {},
    elsewhere: {},
    loaded: false,
  }))
  const put = (doc: Kit) => store.setState(({ entries }) => ({ entries: { ...entries, [doc.id]: { doc, changedAt: 5 } } }))
  const hide = jest.fn(async () => jest.fn())
  const saveState = createStore<{ listed?: boolean; state: string }>(() => ({ state: 'saving' }))
  return {
    kits: { store, create: jest.fn(put), edit: jest.fn(), hide },
    saveState,
    device: { fetchDocument: (...given: unknown[]) => mockFetch(...given) as unknown },
  }
})

const { kits, saveState } = jest.requireMock<{ saveState: { setState(state: object): void }; kits: { store: { getState(): { entries: Record<string, { doc: Kit }> }; setState(state: object): void }; create: jest.Mock; edit: jest.Mock; hide: jest.Mock } }>('../../documents') // prettier-ignore
const kit = { ...aKitOf(aPad(2), aPad(1)), id: 'kit-1' as never, name: 'Low Tide', audio: { [audio]: info } } as Kit
const here = (...all: Kit[]) =>
  act(() => kits.store.setState({ entries: Object.fromEntries(all.map((doc, i) => [doc.id, { doc, changedAt: i }])), elsewhere: {}, loaded: true })) // prettier-ignore
const names = () => Object.values(kits.store.getState().entries).map(({ doc }) => doc.name)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  mockSeen.isSeen = true
  here()
})

test('kits are listed, the one that was changed last first, those of the server with them, and open where they were left', async () => {
  here(kit, { ...kit, id: 'kit-2' as never, name: 'High Tide', pads: [] })
  act(() => kits.store.setState({ elsewhere: { k3: { id: 'k3', name: 'Neap', changedAt: 99, kit: { pads: 1, faces: [[3]] } } } }))
  render(<KitsScreen />)
  const rows = screen.getAllByRole('button', { name: /^Open (?!bundle)/ })
  expect(rows.map((row) => row.getAttribute('aria-label'))).toEqual(['Open Neap', 'Open High Tide', 'Open Low Tide'])
  expect(screen.getByText(/^1 pad, /)).toBeTruthy()
  press('Open Low Tide')
  expect(mockNavigate).not.toHaveBeenCalled() // the press is answered first
  press('Open High Tide')
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledTimes(2))
  expect(mockNavigate.mock.calls).toEqual([['/kit/kit-1/board'], ['/kit/kit-2/gather']])
})

test('what can be done with a kit of the server is offered once it has come; out of reach, that is said', async () => {
  here(kit)
  act(() => kits.store.setState({ elsewhere: { k3: { id: 'k3', name: 'Neap', changedAt: 99, kit: { pads: 1, faces: [[3]] } } } }))
  render(<KitsScreen />)
  mockFetch.mockRejectedValueOnce(new Error('away'))
  await act(async () => press('More for Neap'))
  expect([screen.queryByRole('dialog'), mockNotify.mock.lastCall]).toEqual([null, [expect.stringContaining('on the server')]])
  mockFetch.mockImplementationOnce(async () => here(kit, { ...kit, id: 'k3' as never, name: 'Neap' }))
  await act(async () => press('More for Neap'))
  expect(screen.getByRole('dialog', { name: 'Neap' })).toBeTruthy()
})

test('night and day are chosen over the kits, and the choice is kept', () => {
  const kept = () => JSON.stringify({ ...localStorage })
  chooseTheme('day')
  render(<KitsScreen />)
  press('Night colours')
  expect([screen.queryByRole('button', { name: 'Night colours' }), kept()]).toEqual([null, expect.stringContaining('night')])
  press('Day colours')
  expect(screen.getByRole('button', { name: 'Night colours' })).toBeTruthy()
  expect(kept()).not.toContain('night')
})

test('where there is none, that is said once they have been read, and a new one begins in Gather', () => {
  act(() => kits.store.setState({ loaded: false }))
  render(<KitsScreen />)
  expect(screen.queryByText(/^No kits yet/)).toBeNull()
  act(() => kits.store.setState({ loaded: true }))
  expect(screen.queryByText(/^No kits yet/)).toBeNull() // the server may have some
  act(() => saveState.setState({ listed: true }))
  expect([screen.queryByText(/^No kits yet/), screen.queryByText(/^No kit is called/)]).toEqual([expect.anything(), null])
  press('New kit')
  const [made] = Object.values(kits.store.getState().entries)
  expect(mockNavigate).toHaveBeenCalledWith(`/kit/${made.doc.id}/gather`)
})

test('a kit is heard where it is listed, one at a time, one of the server once it has come; leaving ends it', async () => {
  here(kit, { ...kit, id: 'kit-2' as never, name: 'High Tide' })
  act(() => kits.store.setState({ elsewhere: { k3: { id: 'k3', name: 'Neap', changedAt: 99, kit: { pads: 1, faces: [[3]] } } } }))
  const { unmount } = render(<KitsScreen />)
  await act(async () => press('Hear Low Tide'))
  expect(mockHear).toHaveBeenCalledWith(expect.objectContaining({ id: 'kit-1' }), expect.anything())
  await act(async () => press('Hear High Tide'))
  expect([mockStop.mock.calls.length, screen.queryByRole('button', { name: 'Hear Low Tide' }) !== null]).toEqual([1, true])
  act(() => mockHear.mock.lastCall![1]())
  expect(screen.getByRole('button', { name: 'Hear High Tide' })).toBeTruthy()
  mockFetch.mockRejectedValueOnce(new Error('away'))
  await act(async () => press('Hear Neap'))
  expect(mockNotify).toHaveBeenCalledWith(expect.stringContaining('on the server'))
  mockFetch.mockImplementationOnce(async () => here(kit, { ...kit, id: 'k3' as never, name: 'Neap' }))
  await act(async () => press('Hear Neap'))
  expect(mockHear.mock.lastCall![0]).toMatchObject({ id: 'k3' })
  unmount()
  expect(mockStop).toHaveBeenCalledTimes(3)
})

test('behind a kit nothing is drawn anew and nothing sounds; on coming back the list is as it is by then', async () => {
  here(kit)
  const { rerender } = render(<KitsScreen />)
  await act(async () => press('Hear Low Tide'))
  mockSeen.isSeen = false
  rerender(<KitsScreen />)
  expect([mockStop.mock.calls.length, screen.queryByRole('button', { name: 'Hear Low Tide' }) !== null]).toEqual([1, true])
  here({ ...kit, name: 'Spring Tide' })
  expect(screen.queryByRole('button', { name: 'Open Spring Tide' })).toBeNull()
  mockSeen.isSeen = true
  rerender(<KitsScreen />)
  expect(screen.getByRole('button', { name: 'Open Spring Tide' })).toBeTruthy()
})

test('of hundreds those are drawn that one comes to, and no more is watched for once the last stands there', () => {
  let seen: (entries: { isIntersecting: boolean }[]) => void = () => undefined
  const watching = { observe: jest.fn(), disconnect: jest.fn() }
  Object.assign(globalThis, { IntersectionObserver: function (told: typeof seen) { seen = told; return watching } }) // prettier-ignore
  here(...Array.from({ length: 90 }, (_, i) => ({ ...kit, id: `kit-${i}` as never, name: `Tide ${i}` })))
  const { unmount } = render(<KitsScreen />)
  const drawn = () => screen.getAllByRole('button', { name: /^Open Tide/ }).length
  const come = (isIntersecting: boolean) => act(() => seen([{ isIntersecting }]))
  const counts = [drawn(), (come(false), drawn()), (come(true), drawn()), (come(true), drawn())]
  for (let i = 0; i < 5; i++) come(true)
  expect(drawn()).toBe(90)
  expect(counts).toEqual([12, 12, 24, 36])
  expect([watching.observe, watching.disconnect].map(({ mock }) => mock.calls.length)).toEqual([7, 7])
  fireEvent.change(screen.getByLabelText('Find by name'), { target: { value: 'tide 3' } })
  expect(drawn()).toBe(18) // those with a 3 in them
  unmount()
  Reflect.deleteProperty(globalThis, 'IntersectionObserver')
})

test('among many a kit is found by words of its name in any order', () => {
  here(...Array.from({ length: 200 }, (_, i) => ({ ...kit, id: `kit-${i}` as never, name: `Tide ${i} of the yard` })))
  render(<KitsScreen />)
  const field = screen.getByLabelText('Find by name')
  fireEvent.change(field, { target: { value: 'yard 17' } })
  expect(screen.getAllByRole('button', { name: /^Open Tide/ }).map((row) => row.getAttribute('aria-label'))).toEqual(expect.arrayContaining(['Open Tide 17 of the yard', 'Open Tide 117 of the yard'])) // prettier-ignore
  expect(screen.getAllByRole('button', { name: /^Open Tide/ })).toHaveLength(12)
  fireEvent.change(field, { target: { value: 'pier' } })
  expect(screen.getByText('No kit is called like “pier”.')).toBeTruthy()
})

test('when a kit was changed is said as one says it', () => {
  const now = Date.UTC(2026, 4, 20, 12)
  const ago = (ms: number) => changedWords(now - ms, now)
  const [minute, hour, day] = [60e3, 3600e3, 24 * 3600e3]
  expect([ago(10e3), ago(-5 * minute), ago(minute), ago(59.9 * minute), ago(3 * hour), ago(1.5 * day), ago(13 * day)]).toEqual([
    'changed just now', 'changed just now', 'changed 1 minute ago', 'changed 59 minutes ago', 'changed 3 hours ago', 'changed yesterday', 'changed 13 days ago',
  ]) // prettier-ignore
  expect(ago(40 * day)).toBe('changed on April 10, 2026')
  expect(changedWords(0, now)).toBe('')
})

test('a new kit, and a copy, has a name that no other has', () => {
  createEmptyKit()
  createEmptyKit()
  expect(names()).toEqual(['New kit', 'New kit 2'])
  here(kit)
  duplicateKit(kit)
  duplicateKit(kit)
  expect(names()).toEqual(['Low Tide', 'Low Tide copy', 'Low Tide copy 2'])
  expect(new Set(Object.keys(kits.store.getState().entries)).size).toBe(3)
})

test('a kit is renamed to what is more than spaces, and a deletion can be undone where it is said', async () => {
  renameKit(kit, '  ')
  expect(kits.edit).not.toHaveBeenCalled()
  renameKit(kit, '  Spring Tide ')
  expect(kits.edit).toHaveBeenCalledWith('kit-1', [{ type: 'setKit', fields: { name: 'Spring Tide' } }])
  const bringBack = jest.fn()
  kits.hide.mockResolvedValueOnce(bringBack)
  await deleteKit(kit)
  const [words, action] = mockNotify.mock.lastCall as [string, { label: string; run(): void }]
  expect([words, action.label]).toEqual(['“Low Tide” is deleted.', 'Undo'])
  action.run()
  expect(bringBack).toHaveBeenCalledTimes(1)
})

const bundle = new File([new Uint8Array(4)], 'low tide.zip')
Object.assign(File.prototype, { arrayBuffer: async () => new ArrayBuffer(4) })

test('a bundle opens with its audio, file by file, and says that it is as it was', async () => {
  mockFiles = [bundle]
  mockShip.open.mockResolvedValue({ ok: true, kit, hashes: [audio] })
  mockShip.take.mockResolvedValue(new ArrayBuffer(8))
  await openBundleFile()
  expect(mockKeep).toHaveBeenCalledWith(audio, 'x.wav', expect.any(Blob))
  expect(mockShip.close).toHaveBeenCalled()
  expect([names(), mockNotify.mock.lastCall, mockNavigate.mock.lastCall]).toEqual([['Low Tide'], ['“Low Tide” is open, as it was.'], ['/kit/kit-1/board']])
}) // prettier-ignore

test('one that is here already comes in beside it, never over it', async () => {
  here(kit)
  mockFiles = [bundle]
  mockShip.open.mockResolvedValue({ ok: true, kit, hashes: [] })
  await openBundleFile()
  expect(names()).toEqual(['Low Tide', 'Low Tide 2'])
  expect(mockNotify.mock.lastCall?.[0]).toMatch(/^The audio "x\.wav" is missing from this bundle/)
})

test('what is damaged in it is named; what is no bundle says so, and nothing is made', async () => {
  mockFiles = [bundle]
  mockShip.open.mockResolvedValue({ ok: true, kit, hashes: [audio] })
  mockShip.take.mockResolvedValue(undefined)
  await openBundleFile()
  expect(mockNotify.mock.lastCall?.[0]).toContain('is damaged in this bundle')
  kits.create.mockClear()
  mockShip.open.mockResolvedValue({ ok: false, message: 'This is no bundle.' })
  await openBundleFile()
  expect(mockNotify.mock.lastCall).toEqual(['This is no bundle.'])
  mockFiles = []
  await openBundleFile()
  expect(kits.create).not.toHaveBeenCalled()
})

test('a kit that was saved as a file by itself opens too, and one that cannot be read says why', async () => {
  const json = (text: string) => Object.assign(new File([], 'kit.json'), { text: async () => text })
  mockFiles = [json(JSON.stringify(kit))]
  await openBundleFile()
  expect(names()).toEqual(['Low Tide'])
  mockFiles = [json('{ nothing')]
  await openBundleFile()
  expect(mockNotify.mock.lastCall?.[0]).toMatch(/^kit\.json: .+\.$/)
})
