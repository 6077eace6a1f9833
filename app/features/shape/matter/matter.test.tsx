import { applyEdit, mapClips } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit } from '@heliaster/core/kit'
import { workedClip } from '@heliaster/core/matter'
import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { useState } from 'react'

import { working } from '../../../audio/files/worked-sound'
import { aKitOf, aPad } from '../../../testing/a-kit'
import type { Whom } from '../whom/target'
import { targetOf } from '../whom/target'
import { stepTitle, stepWords } from './step-words'
import { MatterPart } from './MatterPart'

const mockMissing = { state: {} as Record<string, string>, listeners: new Set<() => void>() }
const mockRecording = { sampleRateHz: 48000, channels: [Float32Array.from({ length: 24000 }, (_, i) => Math.sin((2 * Math.PI * 200 * i) / 48000) * Math.exp(-i / 6000))] } // prettier-ignore
jest.mock('../../../audio/files/audio-files', () => ({
  decodedAudio: async () => ({ audio: mockRecording }),
  audioBytes: async () => new ArrayBuffer(8),
  missingAudio: { getState: () => mockMissing.state, getInitialState: () => mockMissing.state, subscribe: (told: () => void) => (mockMissing.listeners.add(told), () => mockMissing.listeners.delete(told)) },
})) // prettier-ignore
const mockPart = jest.fn()
const mockStopped = jest.fn()
const mockCast = jest.fn()
jest.mock('../../../audio/workers/workers', () => ({
  matterWork: () => ({ part: (...given: unknown[]) => mockPart(...given) as unknown }),
  stopMatterWork: () => mockStopped() as unknown,
  coreWork: () => ({ hitSpectrograms: async () => [new Uint8Array(180 * 96), new Uint8Array(180 * 96)] }),
  shipWork: () => ({ lacking: async () => [], bring: async () => undefined, cast: (...given: unknown[]) => mockCast(...given) as unknown }),
}))
const mockHeard = jest.fn()
jest.mock('../../../audio/engine/sound', () => ({
  hearClip: (clip: Clip) => mockHeard(clip) as unknown,
  hearVersion: (pad: unknown, gainDb: number) => mockHeard(pad, gainDb) as unknown,
}))
jest.mock('../../../audio/engine/worked', () => ({ workedMatter: async () => jest.requireActual('@heliaster/core/matter') as unknown }))
jest.mock('../chart/use-drawn-hit', () => ({ drawHit: async () => ({ loudnessDb: -20 }) }))
const mockEdited = jest.fn()
jest.mock('../../../documents', () => ({ kits: { edit: (id: string, edits: unknown) => mockEdited(id, edits) as unknown } }))
jest.mock('../../../audio/import/import', () => ({
  keepMade: async (audio: { channels: Float32Array[] }, name: string) => ({ audio: 'c'.repeat(64), info: { name, sampleRateHz: 48000, frames: audio.channels[0]!.length, channels: 1 } }),
})) // prettier-ignore

let kit: Kit
let done = 0

function Shown({ whom = { kind: 'pad' } }: { readonly whom?: Whom }) {
  const [doc, set] = useState(kit)
  kit = doc
  const pad = doc.pads[0]!
  const edit = (edits: KitEdit[]) => set((now) => edits.reduce(applyEdit, now))
  return <MatterPart kit={doc} pad={pad} target={targetOf(doc, pad, whom)} drawn={{ loudnessDb: -14 } as never} onEdits={edit} onDone={() => done++} />
} // prettier-ignore

/** Shown, with the recording at hand. */
async function show(whom?: Whom) {
  const shown = render(<Shown {...(whom ? { whom } : {})} />)
  await act(async () => undefined)
  return shown
}
const clips = () => kit.pads[0]!.bands.flatMap(({ turns }) => turns).map((turn) => Object.values(turn.clips)[0] as Clip)
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  HTMLCanvasElement.prototype.getContext = () => null
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  }
  mockMissing.state = {}
  mockPart.mockResolvedValue({ ringing: new Float32Array(8), noise: new Float32Array(8) })
  act(() => working.setState({ waiting: 0, share: 0 }, true))
  const plain = aKitOf(aPad(3))
  kit = { ...plain, pads: plain.pads.map((pad) => mapClips(pad, (clip) => ({ ...clip, startFrame: 0, endFrame: 24_000 }))) }
  done = 0
})

/** What is loaded has come before a test is over. */
const settled = () => act(async () => undefined)

test('each need is offered by its name and puts in the step that meets it, on all clips that are meant; taken out again', async () => {
  await show()
  expect(screen.getByText(/Works all 3 clips/)).toBeTruthy()
  press('Longer')
  expect(clips().map(({ process }) => process?.map(({ kind, values }) => [kind, values]))).toEqual(Array(3).fill([['time', { lengthPercent: 200 }]])) // prettier-ignore
  expect(new Set(clips().map(({ process }) => process![0]!.id)).size).toBe(3)
  press('Work it further')
  press('Fresh noise')
  expect(clips()[0]!.process!.map(({ kind }) => kind)).toEqual(['time', 'noise'])
  press('Switch Length and pitch off')
  expect(clips()[2]!.process![0]!.bypass).toBe(true)
  press('Take Length and pitch out')
  press('Take Fresh noise out')
  expect(clips().every(({ process }) => process === undefined)).toBe(true)
})

test('a step that is dragged or stepped is worked once the hand lifts, by keys too', async () => {
  await show()
  press('Longer')
  const before = done
  const slider = screen.getByRole('slider', { name: 'Length' })
  fireEvent.keyDown(slider, { key: 'PageUp' })
  expect(clips()[0]!.process![0]!.values.lengthPercent).toBe(210)
  expect(done).toBe(before + 1)
  press('All of it')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Attack kept' }), { key: 'ArrowRight' })
  expect(clips()[1]!.process![0]!.values).toEqual({ lengthPercent: 210, keepMs: 11 })
  await settled()
})

test('only one turn is touched where only it is meant, and clips that are worked otherwise are told', async () => {
  const turn = kit.pads[0]!.bands[0]!.turns[1]!
  const { unmount } = await show({ kind: 'turn', turnId: turn.id })
  press('Deeper')
  expect(clips().map(({ process }) => process?.length ?? 0)).toEqual([0, 1, 0])
  unmount()
  await show()
  expect(screen.getByText(/^1 of 3 clips is worked otherwise and stays so\./)).toBeTruthy()
  press('Grains')
  press('Take Grains out')
  expect(clips().map(({ process }) => process?.map(({ kind }) => kind) ?? [])).toEqual([[], ['time', 'grains'], []])
})

test('speed along the hit: points are moved by keys and taken out; at the bottom it stands still', async () => {
  await show()
  press('Slow down')
  const last = screen.getByRole('slider', { name: 'Speed, point 3' })
  expect(last.getAttribute('aria-valuetext')).toContain('stands still')
  fireEvent.keyDown(last, { key: 'ArrowUp', shiftKey: true })
  expect(clips()[0]!.process![0]!.curve!.at(-1)!.value).toBe(50)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Speed, point 2' }), { key: 'Delete' })
  expect(clips()[0]!.process![0]!.curve).toHaveLength(2)
  await settled()
})

test('what is worked shows how far it is and can be stopped; what cannot be worked says why', async () => {
  await show()
  expect(screen.queryByRole('status')).toBeNull()
  act(() => working.setState({ waiting: 2, share: 0.4 }, true))
  expect(within(screen.getByRole('status')).getByText('Working on 2 sounds: 40 %')).toBeTruthy()
  press('Stop the work')
  expect(mockStopped).toHaveBeenCalled()
  press('Longer')
  mockMissing.state = { [workedClip(kit, clips()[0]!).audio]: 'This is silent: take another part.' }
  await act(async () => mockMissing.listeners.forEach((told) => told()))
  expect(screen.getByText('This is silent: take another part.')).toBeTruthy()
})

test('as recorded is heard as loud as it is now, and only where something is worked', async () => {
  await show()
  const button = screen.getByRole('button', { name: 'As recorded' })
  expect(button.getAttribute('aria-disabled')).toBe('true')
  press('Longer')
  await act(async () => press('As recorded'))
  const [pad, gainDb] = mockHeard.mock.calls[0] as [Kit['pads'][number], number]
  expect(gainDb).toBe(6)
  expect(pad.bands[0]!.turns.every((turn) => Object.values(turn.clips).every((clip) => (clip as Clip).process === undefined))).toBe(true)
})

test('parting: both parts are heard, its pitch is told, and two rays are made of one', async () => {
  await show()
  await act(async () => press('Part it: ringing and noise'))
  await waitFor(() => expect(screen.getByText(/Its ringing is at 200\.0 Hz/)).toBeTruthy())
  const own = kit.pads[0]!.notes[0]!
  expect(screen.getByRole('slider', { name: 'Sounds as recorded at' }).getAttribute('aria-valuenow')).toBe(String(own))
  press(/^At its own pitch/)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Rings if steady for' }), { key: 'ArrowRight' })
  press('Hear noise')
  expect((mockHeard.mock.calls[0] as [Clip])[0].process).toMatchObject([{ kind: 'noise', values: { steadyMs: 31 } }])
  press('Make two rays')
  expect(kit.pads[0]!.rays.map(({ name }) => name)).toEqual([expect.stringContaining('ringing'), expect.stringContaining('noise')])
  expect(kit.pads[0]!.own.rootNote).toBe(55)
  press('Work it further')
  press('Longer')
  const kinds = kit.pads[0]!.rays.map(({ id }) => (kit.pads[0]!.bands[0]!.turns[0]!.clips[id] as Clip).process!.map(({ kind }) => kind))
  expect(kinds).toEqual([
    ['ringing', 'time', 'time'],
    ['noise', 'time'],
  ])
  await settled()
})

test('a pad is cast at the velocities that are chosen, with or without effects, and put in as one step', async () => {
  mockCast.mockResolvedValue([{ velocity: 64, turn: 0, audio: { channels: [new Float32Array(10)] } }, { velocity: 127, turn: 0, audio: { channels: [new Float32Array(12)] } }]) // prettier-ignore
  await show()
  press('Cast it on a new pad')
  fireEvent.click(screen.getByRole('radio', { name: '4' }))
  expect(screen.getByText(/Struck at 32, 64, 95, 127/)).toBeTruthy()
  fireEvent.click(screen.getByRole('switch', { name: /With effects/ }))
  await act(async () => press('Cast'))
  expect(mockCast).toHaveBeenCalledWith(kit, kit.pads[0]!.id, { velocities: [32, 64, 95, 127], withEffects: true })
  expect(mockEdited).toHaveBeenCalledTimes(1)
  expect((mockEdited.mock.calls[0] as [string, KitEdit[]])[1].map(({ type }) => type)).toEqual(['putAudio', 'addPad'])
  expect(screen.getByText(/2 strikes cast on a new pad/)).toBeTruthy()
})

test('what cannot be cast is said, and nothing is put in', async () => {
  mockCast.mockResolvedValue([])
  await show()
  press('Cast it on a new pad')
  await act(async () => press('Cast'))
  expect(screen.getByText(/Nothing was cast: this pad has no clips/)).toBeTruthy()
  expect(mockEdited).not.toHaveBeenCalled()
})

test('what goes by the note makes its rays follow, and says why it is not heard where it is not', async () => {
  await show()
  press('Same length at every note')
  const [pad] = kit.pads
  expect([pad!.own.rootNote, pad!.rays[0]!.values.keyTrack]).toEqual([pad!.notes[0], 1])
  expect(screen.getByText(/The pad has one note, so that this is not heard yet/)).toBeTruthy()
  await settled()
})

test('resonances that leave the note say so where nothing follows it', async () => {
  await show()
  press('Another body')
  expect(screen.queryByText(/Nothing here follows/)).toBeNull()
  press('All of it')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Go with the note' }), { key: 'Home' })
  expect(screen.getByText(/Nothing here follows the note yet/)).toBeTruthy()
  await settled()
})

test('steps are called by what they do', () => {
  const step = (kind: never, values: Record<string, number>, more = {}) => ({ id: 's', kind, values, bypass: false, ...more })
  expect(stepTitle(step('time' as never, { sameLength: 1 }))).toBe('Same length at every note')
  expect(stepWords(step('time' as never, { lengthPercent: 150, pitchCents: -250 }))).toBe('length 150%, pitch -2.50 semitones')
  expect(stepWords(step('grains' as never, {}, { bypass: true }))).toBe('off')
  expect(stepWords(step('noise' as never, { anew: 1 }, { part: { startFrame: 0, endFrame: 9 } }))).toBe('a part of it, made anew 100%')
})
