import { createOffline, EventType, renderOffline, toScore } from '@heliaster/core/engine'
import { createGroove, withBead } from '@heliaster/core/groove'
import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Groove, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { aKit, testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'

import { BalanceSheet } from './BalanceSheet'
import { HidesSheet } from './HidesSheet'
import { heardPads, listenedSeconds } from './measure-mix'
import { hidingWords, offersFor, rangeWords } from './offers'

const RATE = 48000
const mockEdit = jest.fn()
const mockTry = jest.fn()
const mockStart = jest.fn()
let mockFails = false
let mockBeside: (bpm: number, seconds: number) => Float32Array | undefined = () => undefined
let mockRig: ReturnType<typeof aKit>
jest.mock('../../../audio/engine/sound', () => ({ tryKit: (kit: unknown) => mockTry(kit) }))
jest.mock('../../../audio/playing/groove-player', () => ({
  grooveState: { getState: () => ({ playing: false }) },
  startGroove: (id: unknown) => mockStart(id),
}))
jest.mock('../../../audio/playing/beside', () => ({ besidePart: (...given: [number, number]) => mockBeside(...given) }))
jest.mock('../../../kit-view', () => ({ editKit: (_: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/PadGlyph', () => ({ PadGlyph: () => null }))
jest.mock('../../../kit-view/use-kit', () => ({ padName: (_: unknown, pad: { own: { name?: string } }) => pad.own.name }))
jest.mock('../../../audio/workers/workers', () => {
  const hearing = jest.requireActual<typeof import('@heliaster/core/hearing')>('@heliaster/core/hearing') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const audio = jest.requireActual<typeof import('@heliaster/core/audio')>('@heliaster/core/audio') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const work = { hides: hearing.hidesAmong, balance: hearing.balanceOf, loudness: audio.momentaryLoudness }
  return { coreWork: () => work }
})
jest.mock('../../../audio/engine/draw', () => ({
  drawGroove: async (kits: Kit[], choice: string, seconds: number) => {
    if (mockFails) throw new Error('gone')
    return kits.map((kit) => mockDrawn(kit, choice, seconds))
  },
}))

/** The engine itself, as the worker would have it. */
function mockDrawn(kit: Kit, choice: string, seconds: number): [Float32Array, Float32Array] {
  const { engine } = createOffline(kit, RATE, (hash) => mockRig.audio.get(hash), kit.seed, choice as never)
  return renderOffline(engine, toScore([{ frame: 0, type: EventType.groove, padSlot: 0 }]), Math.round(seconds * RATE))
}

const tone = (hz: number, level: number) => ({ sampleRateHz: RATE, channels: [Float32Array.from({ length: 12000 }, (_, i) => level * Math.sin((2 * Math.PI * hz * i) / RATE) * Math.exp(-i / 6000))] }) // prettier-ignore

/** A boom, a soft tone beside it, and a pad that the groove does not play. */
function rig(): { kit: Kit; groove: Groove } {
  mockRig = aKit([
    { own: { name: 'Hull thump', family: 'kick' }, bands: [[tone(80, 0.8)]] },
    { own: { name: 'Keel drop', family: 'tom' }, bands: [[tone(95, 0.03)]] },
    { own: { name: 'Oar', family: 'snare' }, bands: [[tone(400, 0.5)]] },
  ])
  const steps = mockRig.kit.pads.slice(0, 2).flatMap(({ id }) => [0, 4, 8, 12].map((step) => ({ id, step })))
  const groove = steps.reduce((made, { id, step }) => withBead(made, id, step, 127), createGroove(testIds(3), 'Ebb'))
  return { kit: { ...mockRig.kit, grooves: [groove] }, groove }
}
/** The engine draws what is listened to, which takes a slow machine its time. */
jest.setTimeout(60_000)
const patient = { timeout: 20_000 }
const highest = (samples: Float32Array) => samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0)
const press = (name: string | RegExp) => fireEvent.click(screen.getAllByRole('button', { name })[0]!)

beforeEach(() => jest.clearAllMocks())

/** What is loaded has come before a test is over. */
const settled = () => act(async () => undefined)

test('each pad is heard alone, as the groove plays it; those that it does not play are named', async () => {
  const { kit, groove } = rig()
  expect(listenedSeconds(groove, 120)).toBe(4) // two laps of two seconds
  const { pads, silent } = await heardPads(kit, groove)
  expect([pads.map(({ pad }) => pad.own.name), silent.map((pad) => pad.own.name)]).toEqual([['Hull thump', 'Keel drop'], ['Oar']])
  const whole = mockDrawn(kit, groove.id, 4)
  const apart = whole[0].map((sample, i) => Math.abs(sample - pads[0]!.channels[0]![i]! - pads[1]!.channels[0]![i]!))
  expect(highest(apart)).toBeLessThan(1e-5)
})

test('levels are proposed, taken one by one, and what is taken says so', async () => {
  const { kit, groove } = rig()
  render(<BalanceSheet kit={kit} groove={groove} onClose={() => undefined} />)
  await screen.findByText(/Your ear decides/, {}, patient)
  expect(screen.getByText('Not in this groove, and left alone: Oar.')).toBeTruthy()
  press(/^Raise by/)
  const [edit] = mockEdit.mock.calls[0]![0] as [Extract<KitEdit, { type: 'setPad' }>]
  expect(edit.padId).toBe(kit.pads[1]!.id)
  expect(edit.own.values!.gainDb).toBeGreaterThan(5)
  expect(screen.getByText('Taken')).toBeTruthy()
})

test('all are taken together, as one step', async () => {
  const { kit, groove } = rig()
  render(<BalanceSheet kit={kit} groove={groove} onClose={() => undefined} />)
  fireEvent.click(await screen.findByRole('button', { name: 'Take all 2' }, patient))
  expect(mockEdit).toHaveBeenCalledTimes(1)
  expect(mockEdit.mock.calls[0]![0]).toHaveLength(2)
})

test('without a groove it says what is needed', () => {
  const { kit } = rig()
  render(<BalanceSheet kit={kit} groove={undefined} onClose={() => undefined} />)
  expect(screen.getByText(/put beads on at least two pads/)).toBeTruthy()
})

test('who hides whom is said in words; what to do is heard as loud as it was, and taken', async () => {
  const { kit, groove } = rig()
  const { unmount } = render(<HidesSheet kit={kit} groove={groove} onClose={() => undefined} />)
  expect((await screen.findByText(/^Hull thump hides Keel drop /, {}, patient)).textContent).toMatch(
    /^Hull thump hides Keel drop from \d+ to \d+ Hz by \d+ dB\.$/,
  )
  press('What to do')
  press('Hear it so')
  await waitFor(() => expect(mockStart).toHaveBeenCalled(), patient)
  const tried = mockTry.mock.calls.at(-1)![0] as Kit
  expect(padSettings(tried, tried.pads[0]!).choices.filter2Kind).toBe('peak')
  const loudest = (one: Kit) => highest(mockDrawn(one, groove.id, 4)[0])
  expect(20 * Math.log10(loudest(tried) / loudest(kit))).toBeGreaterThan(-1.5) // a dip of 12 dB, made good
  const asItIs = await screen.findByRole('button', { name: 'Hear it as it is' }, patient)
  await waitFor(() => expect(asItIs.getAttribute('aria-disabled')).not.toBe('true'), patient)
  fireEvent.click(asItIs)
  await waitFor(() => expect(mockTry.mock.calls.at(-1)![0]).toBeUndefined())
  await waitFor(
    () => expect(screen.getAllByRole('button', { name: 'Take it' })[0]!.getAttribute('aria-disabled')).not.toBe('true'),
    patient,
  )
  press('Take it')
  expect(mockEdit).toHaveBeenCalledTimes(1)
  unmount()
  expect(mockTry.mock.calls.at(-1)![0]).toBeUndefined()
})

test('a song beside the groove takes part: it hides a pad, and only what is ours is offered', async () => {
  const { kit, groove } = rig()
  mockBeside = (_, seconds) => Float32Array.from({ length: seconds * RATE }, (__, i) => 0.5 * Math.sin((2 * Math.PI * 95 * i) / RATE))
  render(<HidesSheet kit={kit} groove={groove} onClose={() => undefined} />)
  expect(await screen.findByText(/^The song hides Keel drop /, {}, patient)).toBeTruthy()
  mockBeside = () => undefined
})

test('what cannot be heard is told, and can be taken all the same', async () => {
  const { kit, groove } = rig()
  render(<HidesSheet kit={kit} groove={groove} onClose={() => undefined} />)
  await screen.findByText(/^Hull thump hides Keel drop /, {}, patient)
  press('What to do')
  mockFails = true
  press('Hear it so')
  expect((await screen.findByRole('alert', {}, patient)).textContent).toMatch(/not on this device/)
  mockFails = false
  await waitFor(
    () => expect(screen.getAllByRole('button', { name: 'Take it' })[0]!.getAttribute('aria-disabled')).not.toBe('true'),
    patient,
  )
  press('Take it')
  expect(mockEdit).toHaveBeenCalledTimes(1)
  await settled()
})

test('offers are a dip where a filter is free, a level and a tune; of a song only what is ours', () => {
  const { kit } = rig()
  const [by, whom] = kit.pads as [Pad, Pad]
  const hiding = { by, whom, fromHz: 60, toHz: 110, byDb: 8.2, share: 0.5 }
  expect(hidingWords(kit, hiding)).toBe('Hull thump hides Keel drop from 60 to 110 Hz by 8 dB.')
  expect(rangeWords({ fromHz: 800, toHz: 2400 })).toBe('from 800 Hz to 2.4 kHz')
  expect(offersFor(kit, hiding).map(({ words }) => words)).toEqual([
    'Take 8 dB out of Hull thump from 60 to 110 Hz',
    'Raise Keel drop by 6 dB',
    'Tune Keel drop up by 3 semitones',
  ])
  const filtered = applyEdit(kit, { type: 'setPad', padId: by.id, own: { choices: { filter2Kind: 'highPass' } } })
  expect(offersFor(filtered, { ...hiding, by: filtered.pads[0]! })).toHaveLength(2)
  expect(offersFor(kit, { ...hiding, by: 'song' }).map(({ words }) => words)).toEqual([
    'Raise Keel drop by 6 dB',
    'Tune Keel drop up by 3 semitones',
  ])
  expect(offersFor(kit, { ...hiding, whom: 'song' }).map(({ words }) => words)).toEqual([
    'Take 8 dB out of Hull thump from 60 to 110 Hz',
    'Lower Hull thump by 6 dB',
    'Tune Hull thump up by 3 semitones',
  ])
  for (const { edits } of offersFor(kit, hiding)) expect(edits.reduce(applyEdit, kit)).not.toEqual(kit)
})
