import { applyEdit, effectStarts } from '@heliaster/core/kit'
import type { BusId, Clip, Kit, KitEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { useState } from 'react'

import { hearVersion } from '../../../audio/engine/sound'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { targetOf } from '../whom/target'
import { amountAt, lanesOf, shareOf, stepped } from './lanes'
import { ROOM } from './room'
import { slicePiece } from './slices-view'
import { SlicesPart } from './SlicesPart'

const mockAtStrikes = jest.fn()
const mockAlike = jest.fn()
jest.mock('../../../audio/files/audio-files', () => ({ decodedAudio: async () => ({ audio: { sampleRateHz: 48000, channels: [new Float32Array(48000)] } }) })) // prettier-ignore
jest.mock('../../../audio/workers/workers', () => ({ coreWork: () => ({ slicesAtStrikes: mockAtStrikes, alikeSlices: mockAlike }) }))
jest.mock('../../../audio/engine/sound', () => ({ hearVersion: jest.fn() }))
jest.mock('../../../kit-view', () => ({ editKit: (_: string, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-samples', () => ({ useSamples: () => undefined }))
let mockEdit: (edits: KitEdit[]) => void

let kit: Kit
const dones: number[] = []

/** A pad with one clip of a second, in a kit at 120 beats a minute. */
function begin(change: (kit: Kit) => Kit = (same) => same) {
  const pad = aPad(1)
  const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), endFrame: 48000 }])) })) })) // prettier-ignore
  kit = change({ ...aKitOf({ ...pad, bands }), tempoBpm: 120 })
  dones.length = 0
  return render(<Shown />)
}

function Shown() {
  const [doc, set] = useState(kit)
  kit = doc
  const edit = (edits: KitEdit[]) => set((now) => edits.reduce(applyEdit, now))
  mockEdit = edit
  const pad = doc.pads[0]!
  return <SlicesPart kit={doc} pad={pad} target={targetOf(doc, pad, { kind: 'pad' })} onEdits={edit} onDone={() => dones.push(1)} />
}

const clipNow = () => Object.values(kit.pads[0]!.bands[0]!.turns[0]!.clips)[0] as Clip
const framesNow = () => clipNow().slices?.map(({ frame }) => frame)
const levels = () => clipNow().slices?.map(({ values }) => values.gainDb)
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const wave = () => screen.getByTestId('slices')
const keys = () => screen.getByRole('slider', { name: /of slices$/ })
const key = (name: string, more: object = {}) => fireEvent.keyDown(keys(), { key: name, ...more })
const pointer = (type: string, clientX: number, clientY: number) =>
  fireEvent(wave(), Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY }), { pointerId: 1, pointerType: 'mouse' }))

/** One drag over the wave, which stands at the corner of the page and is 500 px wide. */
function drag(...points: readonly (readonly [number, number])[]) {
  points.forEach(([x, y], i) => pointer(i === 0 ? 'pointerdown' : 'pointermove', x, y))
  pointer('pointerup', ...points.at(-1)!)
}

beforeAll(() => {
  Element.prototype.setPointerCapture = jest.fn()
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  } as never
})
beforeEach(() => {
  mockAlike.mockResolvedValue([])
  slicePiece.setState(undefined, true)
  jest.mocked(hearVersion).mockClear()
})

/** What is loaded has come before a test is over. */
const settled = () => act(async () => undefined)

test('a clip is cut on the beats of its kit, and each slice has a level by keys, of which each press is done', async () => {
  begin()
  press('On halves')
  expect(framesNow()).toEqual([0, 12000, 24000, 36000])
  expect(dones).toHaveLength(1)
  key('ArrowRight')
  key('ArrowDown')
  key('ArrowDown')
  key('ArrowRight')
  key('PageUp')
  expect(levels()).toEqual([undefined, -1, 3, undefined])
  const heights = keys().getAttribute('aria-valuenow')
  key('PageUp')
  expect(Number(keys().getAttribute('aria-valuenow'))).toBeGreaterThan(Number(heights))
  key('PageDown')
  expect(dones).toHaveLength(6)
  expect(keys().getAttribute('aria-valuetext')).toBe('slice 3 of 4, +3.0 dB')
  key('Delete')
  expect(levels()).toEqual([undefined, -1, undefined, undefined])
  expect(keys().getAttribute('aria-valuetext')).toContain('nothing drawn')
  await settled()
})

test('slices begin where strikes are found; where there is none, it is said, and nothing is cut', async () => {
  begin()
  mockAtStrikes.mockResolvedValueOnce([200])
  press('At its strikes')
  expect(await screen.findByText(/no second strike/)).toBeTruthy()
  expect(framesNow()).toBeUndefined()
  mockAtStrikes.mockResolvedValueOnce([200, 9000, 30000])
  press('At its strikes')
  await waitFor(() => expect(framesNow()).toEqual([0, 200, 9000, 30000]))
  expect(mockAtStrikes).toHaveBeenLastCalledWith(expect.anything(), { startFrame: 0, endFrame: 48000 }, false)
})

test('amounts are drawn over the wave, as one step; those between two places of the pointer too', async () => {
  begin()
  press('On quarters')
  // The page knows no widths here: all lies at the left edge, so a drag is along the height alone.
  drag([10, 0], [10, 74], [10, 148])
  expect(levels()![0]).toBe(-120)
  expect(dones).toHaveLength(2)
  await settled()
})

test('what sounds alike takes the amount of the chosen one at one tap', async () => {
  mockAlike.mockResolvedValue([[0, 2], [1, 3]]) // prettier-ignore
  begin()
  press('On halves')
  key('ArrowRight')
  for (let i = 0; i < 4; i++) key('ArrowDown')
  fireEvent.click(await screen.findByRole('button', { name: 'The same on all 2 that sound alike' }))
  expect(levels()).toEqual([undefined, -2, undefined, -2])
})

test('a stretch is chosen, cut, laid down, moved and resized by keys; what it leaves has nothing', async () => {
  begin()
  press('On quarters')
  expect(framesNow()).toHaveLength(8)
  key('ArrowUp')
  key('ArrowRight')
  key('ArrowDown')
  key('ArrowLeft')
  key('ArrowRight', { shiftKey: true })
  expect(keys().getAttribute('aria-valuetext')).toContain('slices 1 to 2')
  key('ArrowRight', { altKey: true })
  expect(levels()).toEqual([undefined, 0.5, -0.5, undefined, undefined, undefined, undefined, undefined])
  key('ArrowRight', { altKey: true, shiftKey: true })
  key('ArrowRight', { altKey: true, shiftKey: true })
  expect(levels()!.slice(1, 5)).toEqual([0.5, 0.5, 0.5, -0.5])
  key('x', { ctrlKey: true })
  expect(levels()!.every((level) => level === undefined)).toBe(true)
  press('Lay down')
  expect(levels()!.slice(1, 5)).toEqual([0.5, 0.5, 0.5, -0.5])
  press('Take off')
  expect(levels()!.every((level) => level === undefined)).toBe(true)
  await settled()
})

test('every second, stairs and chance at one tap, over all where one is chosen', async () => {
  begin()
  press('On halves')
  press('Every 2nd')
  expect(levels()).toEqual([0, -120, 0, -120])
  press('Up in steps')
  expect(levels()).toEqual([-24, -16, -8, 0])
  press('At random')
  for (const level of levels()!) expect(level! / -3).toBeCloseTo(Math.round(level! / -3), 9)
  await settled()
})

test('the room that is made is the first start of a reverb, all of it', async () => {
  const [first] = effectStarts.reverb
  expect(ROOM).toEqual({ kind: 'reverb', values: { ...first!.values, mix: 1 }, choices: { ...first!.choices } })
  await settled()
})

test('without a bus to send to a room is made; what is drawn goes there from the slices alone', async () => {
  begin()
  press('On halves')
  press('Make a room to send to')
  expect(kit.buses[0]).toMatchObject({ name: 'Room', isReturn: true, inserts: [{ kind: 'reverb', values: { mix: 1 } }] })
  expect(screen.getByText('Where nothing is drawn, nothing is sent.')).toBeTruthy()
  key('ArrowUp')
  expect(clipNow().slices![0]!.sends).toEqual({ [kit.buses[0]!.id]: { gainDb: -36 } })
  key('ArrowDown')
  expect(clipNow().slices![0]!.sends).toEqual({ [kit.buses[0]!.id]: { gainDb: -120 } })
  await settled()
})

test('slices are joined, and all taken off; the chosen ones are heard with what is drawn on them', async () => {
  begin()
  press('On halves')
  key('ArrowRight')
  key('ArrowUp')
  key('Enter')
  const [heard] = jest.mocked(hearVersion).mock.calls[0]!
  const clip = Object.values(heard.bands[0]!.turns[0]!.clips)[0] as Clip
  expect([clip.startFrame, clip.endFrame]).toEqual([12000, 24000])
  expect(clip.slices![1]!.values.gainDb).toBe(0.5)
  fireEvent.click(screen.getByRole('radio', { name: 'Cut slices' }))
  press('Join with the one before')
  expect(framesNow()).toEqual([0, 24000, 36000])
  press('No slices')
  expect(clipNow().slices).toBeUndefined()
  await settled()
})

test('a sliced clip follows the tempo of its kit at one tap, beside what else is done to it, and is let go again', async () => {
  begin()
  press('On halves')
  expect(screen.getByText('At 120 beats a minute it is about 2 beats long.')).toBeTruthy()
  press("Follow the kit's tempo")
  expect(clipNow().process).toMatchObject([{ kind: 'time', values: { beats: 2 } }])
  expect(screen.getByText(/lasts 2 beats whatever/)).toBeTruthy()
  expect(framesNow()).toHaveLength(4)
  press('As long as recorded')
  expect(clipNow().process).toBeUndefined()
  await settled()
})

test('what two microphones took of one strike is cut at the same places', async () => {
  begin((before) => {
    const [pad] = before.pads as [Kit['pads'][number]]
    const far = { ...pad.rays[0]!, id: 'far' as never, name: 'Far' }
    const [turn] = pad.bands[0]!.turns as [(typeof pad.bands)[0]['turns'][0]]
    const near = Object.values(turn.clips)[0] as Clip
    const clips = { ...turn.clips, far: { ...near, startFrame: 500, endFrame: 48000 } }
    return { ...before, pads: [{ ...pad, rays: [...pad.rays, far], bands: [{ ...pad.bands[0]!, turns: [{ ...turn, clips }] }] }] }
  })
  press('On halves')
  const all = Object.values(kit.pads[0]!.bands[0]!.turns[0]!.clips) as Clip[]
  expect(all.map((clip) => clip.slices!.map(({ frame }) => frame - clip.startFrame))).toEqual([[0, 12000, 24000, 36000], [0, 12000, 24000, 36000]]) // prettier-ignore
  await settled()
})

test('lanes: heights and amounts agree, off lies at the foot, and a ray that sends has its slices as it stands', async () => {
  begin()
  const [pad] = kit.pads as [Kit['pads'][number]]
  const bus = { id: 'room' as BusId, name: 'Room', isReturn: true } as Kit['buses'][number]
  const into = { id: 'drums' as BusId, name: 'Drums', isReturn: false } as Kit['buses'][number]
  const withBuses = { ...kit, buses: [into, bus] }
  const sending = {
    ...pad,
    own: { ...pad.own, bus: into.id },
    rays: [{ ...pad.rays[0]!, sends: [{ busId: bus.id, values: {}, tap: 'post' as const }] }],
  }
  const lanes = lanesOf(withBuses, sending, pad.rays[0]!.id)
  expect(lanes.map(({ text }) => text)).toEqual(['Level', 'Place', 'Tuning', 'To Room'])
  expect(lanes[3]!.usual).toBe(0)
  for (const lane of lanes) {
    for (let i = 0; i <= 60; i++) {
      const amount = amountAt(lane, i / 60)
      if (amount > -120) expect(amountAt(lane, shareOf(lane, amount))).toBe(amount)
    }
    expect(stepped(lane, lane.most, 1)).toBe(lane.most)
  }
  expect(amountAt(lanes[0]!, 0)).toBe(-120)
  expect(stepped(lanes[0]!, -36, -1)).toBe(-120)
  expect(stepped(lanes[0]!, -120, 1)).toBe(-36)
  await settled()
})

const mark = (name: string) => screen.queryByRole('slider', { name })
const nudged = (name: string, key: string, shiftKey = false) => fireEvent.keyDown(mark(name)!, { key, shiftKey })

test('the border before a slice is moved by keys, a millisecond or ten at a time, and never passes its neighbours', async () => {
  begin()
  press('On halves')
  fireEvent.click(screen.getByRole('radio', { name: 'Cut slices' }))
  expect(mark('Border before slice 1')).toBeNull()
  key('ArrowRight')
  const border = 'Border before slice 2'
  expect([mark(border)!.getAttribute('aria-valuenow'), mark(border)!.getAttribute('aria-valuetext')]).toEqual(['250', '0.250 s'])
  const before = dones.length
  nudged(border, 'ArrowRight')
  expect(framesNow()).toEqual([0, 12048, 24000, 36000])
  nudged(border, 'ArrowLeft', true)
  expect(framesNow()).toEqual([0, 11568, 24000, 36000])
  expect(dones).toHaveLength(before + 2)
  for (let i = 0; i < 40; i++) nudged(border, 'ArrowRight', true)
  expect(framesNow()).toEqual([0, 24000 - 240, 24000, 36000])
  for (let i = 0; i < 60; i++) nudged(border, 'ArrowLeft', true)
  expect(framesNow()).toEqual([0, 240, 24000, 36000])
  await settled()
})

test('several slices have no border of their own; in a stretch its ends are marked, of one slice they are not', async () => {
  begin()
  press('On halves')
  key('ArrowRight', { shiftKey: true })
  fireEvent.click(screen.getByRole('radio', { name: 'Cut slices' }))
  expect(screen.queryByRole('slider', { name: /^Border/ })).toBeNull()
  fireEvent.click(screen.getByRole('radio', { name: 'Choose a stretch' }))
  const ends = () => ['Start of the stretch', 'End of the stretch'].map((name) => mark(name) && ['aria-valuetext', 'aria-valuenow'].map((said) => mark(name)!.getAttribute(said)).join(', ')) // prettier-ignore
  expect(ends()).toEqual(['slice 1, 1', 'slice 2, 2'])
  nudged('End of the stretch', 'ArrowRight')
  expect(ends()).toEqual(['slice 1, 1', 'slice 3, 3'])
  key('ArrowRight')
  expect(ends()).toEqual([null, null])
  await settled()
})

test('a border says how far it is from where its clip begins', async () => {
  const late = (whole: Kit): Kit => ({ ...whole, pads: whole.pads.map((pad) => ({ ...pad, bands: pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), startFrame: 4800 }])) })) })) })) as Kit['pads'] }) // prettier-ignore
  begin(late)
  press('On halves')
  expect(framesNow()).toEqual([4800, 16800, 28800, 40800])
  fireEvent.click(screen.getByRole('radio', { name: 'Cut slices' }))
  key('ArrowRight')
  expect(mark('Border before slice 2')!.getAttribute('aria-valuetext')).toBe('0.250 s')
  await settled()
})
