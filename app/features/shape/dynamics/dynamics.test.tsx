import { applyEdit, createBand } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { asBands } from '@heliaster/core/place'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../documents/make-id'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { dynamicsWords } from './DynamicsChart'
import { changedWords, DynamicsPart } from './DynamicsPart'
import { measureBands, stepsOf, tellingVelocities, withAllTurns } from './measure-dynamics'

/** What each band was recorded at, dB; the engine is left out: a tone as loud as band and velocity say. */
const mockRecorded = [-30, -14, -12]
jest.mock('../../../audio/engine/draw', () => ({
  drawStrike: (_kit: unknown, pad: Pad, velocity: number) => {
    const band = pad.bands.findLastIndex(({ fromVelocity }) => fromVelocity <= velocity)
    const response = pad.own.responses?.find(({ from }) => from.kind === 'velocity')
    const softerDb = ((response?.amount ?? 0) * (127 - velocity)) / 126
    const place = mockRecorded[band]! + (pad.bands[band]!.values.gainDb ?? 0) - softerDb
    const tone = Float32Array.from({ length: 16800 }, (_, i) => 10 ** (place / 20) * Math.sin(i / (8 - band)))
    return Promise.resolve({ left: tone, right: tone })
  },
}))
let kit: Kit
let mockSet: (edits: KitEdit[]) => void
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockSet(edits) }))

function Shown() {
  const [doc, set] = useState(kit)
  kit = doc
  mockSet = (edits) => set((now) => edits.reduce(applyEdit, now))
  return <DynamicsPart kit={doc} pad={doc.pads[0]!} />
}

/** Lets what is measured arrive, strike by strike. */
const settle = async () => {
  for (let i = 0; i < 60; i++) await act(async () => void jest.advanceTimersByTime(300))
}

beforeEach(() => {
  jest.useFakeTimers()
  kit = aKitOf(aPad(3, asBands))
})
afterEach(() => jest.useRealTimers())

test('loudness over velocity is told with its largest step, and rises evenly after one action that says what it changed', async () => {
  render(<Shown />)
  await settle()
  expect(screen.getByRole('status').textContent).toMatch(/largest step between bands is \+1[56]\.\d dB, at velocity 43/)
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Even it' })))
  await settle()
  expect(screen.getByRole('status').textContent).toMatch(/^Changed: softer strikes are quieter by up to \d+\.\d dB, band 1 by \+/)
  expect(screen.getByRole('img').getAttribute('aria-label')).toMatch(/with no step between bands/)
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Even it' })))
  await settle()
  expect(screen.getByRole('status').textContent).toBe('It rises evenly already; nothing was changed.')
})

test('a pad of one band is drawn, and has nothing to even', async () => {
  kit = aKitOf(aPad(2))
  render(<Shown />)
  await settle()
  expect(screen.getByRole('img').getAttribute('aria-label')).toMatch(/^From -\d+ LUFS.*with no step/)
  expect(screen.queryByRole('button', { name: 'Even it' })).toBeNull()
})

test('points are shown as all turns of their band are, not as the one that was struck', async () => {
  const points = [{ velocity: 1, band: 0, loudness: -50 }, { velocity: 22, band: 0, loudness: -40 }, { velocity: 64, band: 1, loudness: -Infinity }] // prettier-ignore
  const [band] = await measureBands(kit, kit.pads[0]!)
  const all = await withAllTurns(kit, kit.pads[0]!, points, () => true)
  expect(all[1]!.loudness).toBeCloseTo(band!.loudness, 9)
  expect(all[0]!.loudness).toBeCloseTo(band!.loudness - 10, 9)
  expect(all[2]!.loudness).toBe(-Infinity)
})

test('velocities that tell most: edges and middles, each once, at most 48; steps only between bands that sound', () => {
  const pad = aPad(3, asBands)
  expect(tellingVelocities(pad).map(({ velocity }) => velocity)).toEqual([1, 22, 42, 43, 64, 85, 86, 107, 127])
  const many = { ...pad, bands: Array.from({ length: 127 }, (_, i) => createBand(makeId, i + 1, pad.bands[0]!.turns)) }
  expect(tellingVelocities(many).length).toBeLessThanOrEqual(48)
  const points = [{ velocity: 1, band: 0, loudness: -40 }, { velocity: 42, band: 0, loudness: -30 }, { velocity: 43, band: 1, loudness: -33 }, { velocity: 90, band: 2, loudness: -Infinity }] // prettier-ignore
  expect(stepsOf(points)).toEqual([{ velocity: 43, db: -3 }])
  expect(dynamicsWords([])).toMatch(/Nothing sounds/)
  expect(changedWords([0, -1.25, 3])).toBe('Changed: band 2 by -1.3 dB, band 3 by +3.0 dB.')
  expect(changedWords([0], 20)).toBe('Changed: softer strikes are quieter by up to 20.0 dB.')
})
