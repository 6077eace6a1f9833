import { createGroove, withBead } from '@heliaster/core/groove'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen } from '@testing-library/react'

import type { Shipped } from '../../audio/workers/ship-work'
import { aKitOf, aPad, audio, info } from '../../testing/a-kit'
import { ShipScreen } from './ShipScreen'

let mockKit: Kit | undefined
const mockWrite = jest.fn()
const mockSave = jest.fn()
const mockStems = jest.fn()
let mockBytes: (hash: AudioHash) => Promise<ArrayBuffer>
jest.mock('../../kit-view', () => ({ useKit: () => mockKit }))
jest.mock('../../audio/workers/workers', () => ({
  shipWork: () => ({
    write: (...given: unknown[]) => mockWrite(...given) as unknown,
    stems: (...given: unknown[]) => mockStems(...given) as unknown,
  }),
}))
jest.mock('../../audio/files/audio-files', () => ({ audioBytes: (hash: AudioHash) => mockBytes(hash) }))
jest.mock('../../ui/device/choose-files', () => ({ saveFile: (...given: unknown[]) => mockSave(...given) as unknown }))
jest.mock('comlink', () => ({ transfer: (value: unknown) => value }))

const kit = { ...aKitOf(aPad(1)), name: 'Low Tide', audio: { [audio]: info } } as Kit
const files = (count: number) => Array.from({ length: count }, (_, i) => ({ path: `Oar/turn ${i + 1}.wav`, bytes: 2_000_000 }))
const shipped = (more: Partial<Shipped> = {}): Shipped => ({ zip: new ArrayBuffer(1_500_000), files: files(2), notes: [], isTooLoud: false, ...more }) // prettier-ignore
const shown = async () => {
  render(<ShipScreen />)
  await act(async () => undefined)
}
const choose = (name: string) => act(async () => void fireEvent.click(screen.getByRole('radio', { name })))
const saveButton = () => screen.getByRole('button', { name: /^Save/ })

beforeEach(() => {
  jest.clearAllMocks()
  mockKit = kit
  mockBytes = async () => new ArrayBuffer(8)
  mockWrite.mockResolvedValue(shipped())
})

test('what will be written is listed with its sizes before it is saved, and saved under the kit’s name', async () => {
  await shown()
  expect(screen.getByText('2 files')).toBeTruthy()
  expect(screen.getByText('4.0 MB')).toBeTruthy()
  expect(screen.getByText('The check found nothing missing.')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Save 1.5 MB zip' }))
  expect(mockSave).toHaveBeenCalledWith('Low Tide SFZ.zip', expect.any(ArrayBuffer), 'application/zip')
  await choose('Bundle')
  fireEvent.click(saveButton())
  expect(mockSave.mock.lastCall?.[0]).toBe('Low Tide.heliaster.zip')
  expect(mockWrite.mock.calls.map(([, form]) => form as string)).toEqual(['sfz', 'bundle'])
})

test('audio that cannot be had is named by the check, and the rest is written', async () => {
  mockBytes = () => Promise.reject(new Error('gone'))
  await shown()
  expect(screen.queryByText('The check found nothing missing.')).toBeNull()
  expect(mockWrite.mock.calls[0][2]).toEqual(new Map())
  expect(saveButton().getAttribute('aria-disabled')).not.toBe('true')
})

test('what happens to files that would clip is asked only where some would', async () => {
  await shown()
  await choose('WAV files')
  expect(screen.queryByRole('radiogroup', { name: 'Files that would clip' })).toBeNull()
  mockWrite.mockResolvedValue(shipped({ isTooLoud: true }))
  await choose('SFZ')
  await choose('WAV files')
  await choose('Lower each that would')
  expect(mockWrite.mock.lastCall?.[3]).toBe('each')
})

test('what SFZ cannot say is named, and of very many files the first are shown and the others counted', async () => {
  mockWrite.mockResolvedValue(shipped({ notes: ['Drive is in the files.'], files: files(320) }))
  await shown()
  expect(screen.getByText('Drive is in the files.')).toBeTruthy()
  expect(screen.getByText('and 20 more')).toBeTruthy()
})

test('where writing fails that is said, with that nothing of the kit is changed, and nothing can be saved', async () => {
  mockWrite.mockRejectedValue(new Error('no memory'))
  await shown()
  expect(screen.getByRole('alert').textContent).toBe('The files could not be written: no memory. Nothing of the kit is changed.')
  expect(saveButton().getAttribute('aria-disabled')).toBe('true')
})

test('a kit without pads has nothing to write', async () => {
  mockKit = { ...kit, pads: [] }
  await shown()
  expect(screen.getByText('Nothing to write yet')).toBeTruthy()
  expect(mockWrite).not.toHaveBeenCalled()
})

test('stems are made when asked for, by what is chosen, listed with what they do not say, and saved', async () => {
  const [pad] = kit.pads
  const groove = withBead(createGroove(testIds(2), 'Ebb'), pad!.id, 0, 100)
  mockKit = { ...kit, grooves: [groove] }
  mockStems.mockResolvedValue(shipped({ files: [{ path: 'The mix.wav', bytes: 4_000_000 }], notes: ['Effects are left out.'] }))
  await shown()
  await choose('Stems')
  expect(screen.queryByRole('button', { name: /^Save/ })).toBeNull()
  await choose('By ray')
  fireEvent.click(screen.getByRole('switch', { name: 'With effects' }))
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Laps' }), { key: 'ArrowRight' })
  expect(screen.getByText(/^\d+[.]\d s, and what rings out after[.]$/)).toBeTruthy()
  await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Make the stems' })))
  expect(mockStems.mock.lastCall?.[1]).toEqual({ by: 'ray', withEffects: false, what: groove.id, laps: 5, sampleRateHz: 48000 })
  expect(screen.getByText('Effects are left out.')).toBeTruthy()
  fireEvent.click(saveButton())
  expect(mockSave.mock.lastCall?.[0]).toBe('Low Tide stems.zip')
  mockStems.mockRejectedValue(new Error('no memory'))
  await choose('By bus') // another choice wants to be made anew
  await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Make the stems' })))
  expect(screen.getByRole('alert').textContent).toMatch(/^The stems could not be made: no memory/)
})

test('without beads there are no stems, and it says what to do', async () => {
  await shown()
  await choose('Stems')
  expect(screen.getByText(/put beads on some strings/)).toBeTruthy()
})
