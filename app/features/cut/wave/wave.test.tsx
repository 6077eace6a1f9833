import { summarise } from '@heliaster/core/audio'
import { createSource } from '@heliaster/core/kit'
import type { CutSettings } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { cutLooks } from '../bench/looks'
import type { Analysis } from '../bench/use-source-cut'
import { FLAGS_PX } from './draw-recording'
import { Overview } from './Overview'
import { Spectrogram } from './Spectrogram'
import { StrengthChart } from './StrengthChart'
import { TimeScale } from './TimeScale'
import { Waveform } from './Waveform'

const [WIDTH, HEIGHT, FRAMES] = [400, 200, 48000]
const mockDrawn = jest.fn()
const mockSpectrogram = jest.fn()
jest.mock('./draw-recording', () => ({
  ...jest.requireActual<object>('./draw-recording'),
  drawRecording: (...given: unknown[]) => mockDrawn(...given) as unknown,
}))
jest.mock('../../../audio/workers/workers', () => ({
  coreWork: () => ({ spectrogram: (...given: unknown[]) => mockSpectrogram(...given) as unknown }),
}))
jest.mock('../../../ui/drawing/tinted-pixels', () => ({ tintedPixels: () => ({}) })) // prettier-ignore

const told = { texts: [] as { words: string; x: number }[], rects: [] as number[][], images: [] as number[][] }
const pen = new Proxy(
  {
    fillText: (words: string, x: number) => told.texts.push({ words, x }),
    fillRect: (...rect: number[]) => told.rects.push(rect),
    drawImage: (_image: unknown, ...at: number[]) => told.images.push(at),
  } as Record<string, unknown>,
  { get: (target, name) => target[String(name)] ?? (() => undefined), set: () => true },
)
const mono = Float32Array.from({ length: FRAMES }, (_, i) => Math.sin(i / 20))
const strength = Float32Array.from({ length: 100 }, (_, i) => (i === 50 ? 0.8 : 0))
const analysis = { mono, summary: summarise(mono), shown: { hopFrames: 480, strength }, levels: summarise(strength) } as unknown as Analysis
const view = { start: 0, end: FRAMES, gain: 1 }
const source = createSource(makeId, audio, info, 'Slipway')

beforeEach(() => {
  jest.clearAllMocks()
  jest.useRealTimers()
  Object.values(told).forEach((list) => list.splice(0))
  Element.prototype.setPointerCapture = () => undefined
  globalThis.ResizeObserver = class { observe() {} disconnect() {} unobserve() {} } as never // prettier-ignore
  globalThis.OffscreenCanvas = class { getContext = () => pen } as never // prettier-ignore
  HTMLCanvasElement.prototype.getContext = (() => pen) as never
  for (const [name, value] of [['clientWidth', WIDTH], ['clientHeight', HEIGHT]] as const)
    Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => value }) // prettier-ignore
  Object.assign(performance, { mark: () => undefined })
})
afterAll(() => ['clientWidth', 'clientHeight'].forEach((name) => Reflect.deleteProperty(HTMLElement.prototype, name)))

const place = (label: string | RegExp) => screen.getByLabelText(label).parentElement!.parentElement!
function pointer(on: Element, type: string, x: number, y: number, more: object = {}) {
  const { id = 1, at = 0, ...keys } = more as { id?: number; at?: number }
  const event = new MouseEvent(type, { bubbles: true, clientX: x, clientY: y, ...keys })
  Object.defineProperty(event, 'timeStamp', { value: at })
  fireEvent(on, Object.assign(event, { pointerId: id, pointerType: 'touch' }))
}

describe('the wave', () => {
  const hits = hitsOf(4).map((hit, i) => ({ ...hit, marker: { ...hit.marker, frame: 6000 + i * 12000 }, hit: { ...hit.hit!, endFrame: 15000 + i * 12000 } }))
  const did = { onView: jest.fn(), onTap: jest.fn(), onSlideMarker: jest.fn(), onSlideTail: jest.fn(), onSlid: jest.fn(), onPassage: jest.fn() }
  const wave = (more: object = {}) => {
    render(<Waveform analysis={analysis} hits={hits} view={view} height={HEIGHT} {...did} {...more} />)
    return place(/^Waveform/)
  } // prettier-ignore
  const drag = (on: Element, from: readonly [number, number], to: readonly [number, number], keys: object = {}) => {
    pointer(on, 'pointerdown', ...from, keys)
    pointer(on, 'pointermove', ...to, keys)
    pointer(on, 'pointerup', ...to, keys)
  }
  const LOW = FLAGS_PX + 40

  test('says how many hits it shows, and draws what it was given', () => {
    wave({ cursor: 99 })
    expect(screen.getByRole('img', { name: 'Waveform, 4 hits' })).toBeTruthy()
    expect(mockDrawn.mock.lastCall![2]).toMatchObject({ hits, view, cursor: 99 })
  })

  test('a tap is told with its frame; a finger that moved a little too far pans instead', () => {
    const on = wave()
    drag(on, [100, LOW], [104, LOW])
    expect(did.onTap).toHaveBeenCalledWith(12_000)
    expect(did.onView).not.toHaveBeenCalled()
    drag(on, [100, LOW], [60, LOW])
    expect(did.onTap).toHaveBeenCalledTimes(1)
    expect(did.onView.mock.lastCall![0]).toEqual(view) // all of it is seen, so there is nowhere to go
  })

  test('a view of a part is panned by as much as the finger moves, and zoomed by two fingers where they are', () => {
    const part = { start: 12_000, end: 24_000, gain: 1 }
    const on = wave({ view: part })
    drag(on, [100, LOW], [140, LOW])
    expect(did.onView).toHaveBeenLastCalledWith({ start: 10_800, end: 22_800, gain: 1 })
    pointer(on, 'pointerdown', 100, LOW)
    pointer(on, 'pointerdown', 200, LOW, { id: 2 })
    pointer(on, 'pointermove', 300, LOW, { id: 2 })
    const [pan, zoom] = did.onView.mock.calls.slice(-2).map(([next]) => next as typeof view)
    expect(pan).toEqual({ start: 10_500, end: 22_500, gain: 1 })
    expect([zoom!.end - zoom!.start, zoom!.start + (zoom!.end - zoom!.start) / 2]).toEqual([6_000, 18_000])
  })

  test('the wheel zooms, with Shift pans, with Ctrl makes the wave taller', () => {
    const part = { start: 12_000, end: 24_000, gain: 2 }
    const on = wave({ view: part })
    const wheel = (keys: object) => {
      fireEvent.wheel(on, { clientX: 200, clientY: LOW, ...keys })
      return did.onView.mock.lastCall![0] as typeof view
    }
    const closer = wheel({ deltaY: -100 })
    expect(closer.end - closer.start).toBeCloseTo(12_000 * Math.exp(-0.25), 3)
    expect((closer.start + closer.end) / 2).toBeCloseTo(18_000, 3)
    expect(wheel({ deltaY: 40, shiftKey: true }).start).toBe(12_000 + 1200)
    expect(wheel({ deltaX: -40 }).start).toBe(12_000 - 1200)
    expect(wheel({ deltaY: -100, ctrlKey: true }).gain).toBeCloseTo(2 * Math.exp(0.25), 6)
    expect(wheel({ deltaY: 100, altKey: true }).gain).toBeCloseTo(2 * Math.exp(-0.25), 6)
  })

  test('the nearest flag within reach is dragged, within the recording, in one step', () => {
    const on = wave()
    drag(on, [60, 5], [500, 5])
    expect(did.onSlideMarker.mock.calls).toEqual([[hits[0]!.marker, FRAMES]])
    expect(did.onSlid).toHaveBeenCalledTimes(1)
    drag(on, [90, 5], [120, 5]) // between two flags, too far from each
    expect(did.onSlideMarker).toHaveBeenCalledTimes(1)
    pointer(on, 'pointerdown', 150, 5)
    pointer(on, 'pointermove', -20, 5)
    expect(did.onSlideMarker).toHaveBeenLastCalledWith(hits[1]!.marker, 0)
  })

  test('the end of the chosen hit is taken by its foot, of no other, and nowhere else', () => {
    const on = wave({ chosen: hits[1]!.marker.id })
    drag(on, [225, HEIGHT - 10], [250, HEIGHT - 10])
    expect(did.onSlideTail.mock.calls).toEqual([[hits[1]!.marker, 30_000]])
    drag(on, [225, HEIGHT - 60], [250, HEIGHT - 60])
    drag(on, [325, HEIGHT - 10], [350, HEIGHT - 10])
    expect(did.onSlideTail).toHaveBeenCalledTimes(1)
    expect(did.onSlid).toHaveBeenCalledTimes(1)
  })

  test('Shift, or a finger that rested, marks a passage either way; its edges are moved one at a time', () => {
    jest.useFakeTimers({ doNotFake: ['performance'] })
    const on = wave()
    drag(on, [200, LOW], [100, LOW], { shiftKey: true })
    expect(did.onPassage.mock.calls).toEqual([[{ startFrame: 12_000, endFrame: 24_000 }]])
    expect(did.onSlid).not.toHaveBeenCalled()
    pointer(on, 'pointerdown', 200, LOW)
    act(() => void jest.advanceTimersByTime(500))
    pointer(on, 'pointermove', 300, LOW)
    pointer(on, 'pointerup', 300, LOW)
    expect(did.onPassage).toHaveBeenLastCalledWith({ startFrame: 24_000, endFrame: 36_000 })
    expect([did.onView, did.onTap].map(({ mock }) => mock.calls.length)).toEqual([0, 0])
  })

  test('an edge of a passage is moved while the other stays, and a passage of nothing is none', () => {
    const on = wave({ passage: { startFrame: 12_000, endFrame: 24_000 } })
    drag(on, [205, LOW], [300, LOW])
    expect(did.onPassage).toHaveBeenLastCalledWith({ startFrame: 12_000, endFrame: 36_000 })
    drag(on, [95, LOW], [300, LOW])
    expect(did.onPassage).toHaveBeenLastCalledWith({ startFrame: 24_000, endFrame: 36_000 })
    drag(on, [95, LOW], [200, LOW])
    expect(did.onPassage).toHaveBeenCalledTimes(2)
  })

  test('a button that is not the first, and a touch that is taken away, do nothing', () => {
    const on = wave()
    pointer(on, 'pointerdown', 100, LOW, { button: 2 })
    pointer(on, 'pointerup', 100, LOW)
    pointer(on, 'pointerdown', 100, LOW)
    pointer(on, 'pointercancel', 100, LOW)
    expect(did.onTap).not.toHaveBeenCalled()
  })

  test('a view that was flung goes on and slows down; a finger stops it', () => {
    const frames: ((now: number) => void)[] = []
    jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((run) => frames.push(run))
    const cancelled = jest.spyOn(globalThis, 'cancelAnimationFrame').mockImplementation(() => void frames.splice(0))
    const on = wave({ view: { start: 12_000, end: 24_000, gain: 1 } })
    pointer(on, 'pointerdown', 100, LOW, { at: 0 })
    pointer(on, 'pointermove', 140, LOW, { at: 10 })
    pointer(on, 'pointermove', 180, LOW, { at: 20 })
    pointer(on, 'pointerup', 180, LOW, { at: 30 })
    const before = did.onView.mock.calls.length
    let now = performance.now()
    const moves: number[] = []
    for (let i = 0; i < 400 && frames.length > 0; i++) {
      frames.shift()!((now += 16))
      moves.push(12_000 - (did.onView.mock.lastCall![0] as typeof view).start)
    }
    expect(did.onView.mock.calls.length - before).toBe(moves.length)
    expect(moves.length).toBeGreaterThan(20)
    expect(frames).toHaveLength(0) // it has come to rest
    expect(moves.at(-1)!).toBeLessThan(moves[5]! / 4)
    pointer(on, 'pointerdown', 100, LOW, { at: 100 })
    expect(cancelled).toHaveBeenCalled()
  })
}) // prettier-ignore

describe('the line over strikes', () => {
  const [slide, done] = [jest.fn(), jest.fn()]
  const chart = (waterLine: number) => {
    render(<StrengthChart analysis={analysis} view={view} waterLine={waterLine} height={100} onSlide={slide} onDone={done} />)
    return screen.getByRole('slider', { name: 'Water line' })
  }

  test('lies where the finger is, in half percents, and never quite on the ground', () => {
    const on = chart(0.3)
    pointer(on, 'pointerdown', 10, 60)
    pointer(on, 'pointermove', 10, 33.2)
    pointer(on, 'pointermove', 10, 400)
    pointer(on, 'pointermove', 10, -50)
    pointer(on, 'pointerup', 10, -50)
    expect(slide.mock.calls.map(([line]) => line as number)).toEqual([0.4, 0.67, 0.02, 1])
    expect(done).toHaveBeenCalledTimes(1)
  })

  test('is moved by keys, each of them a step of its own', () => {
    const on = chart(0.3)
    for (const key of ['ArrowUp', 'ArrowRight', 'ArrowDown', 'ArrowLeft', 'PageUp', 'PageDown', 'x']) fireEvent.keyDown(on, { key })
    expect(slide.mock.calls.map(([line]) => line as number)).toEqual([0.31, 0.31, 0.29, 0.29, 0.4, 0.2])
    expect(done).toHaveBeenCalledTimes(6)
    expect([on.getAttribute('aria-valuenow'), on.getAttribute('aria-valuemin'), on.getAttribute('aria-valuemax')]).toEqual(['30', '2', '100'])
  })

  test.each([[0.02, 'PageDown', 0.02], [0.97, 'PageUp', 1]] as const)('at %s %s stops at its end', (from, key, to) => {
    fireEvent.keyDown(chart(from), { key })
    expect(slide).toHaveBeenLastCalledWith(to)
  }) // prettier-ignore
}) // prettier-ignore

describe('the scale', () => {
  const words = (times: 'seconds' | 'frames' | 'beats', cut: Partial<CutSettings> = {}, tempoBpm = 120) => {
    act(() => cutLooks.setState({ times }))
    told.texts.splice(0)
    render(<TimeScale source={{ ...source, cut: { ...source.cut, ...cut } }} view={view} tempoBpm={tempoBpm} />).unmount()
    told.texts.splice(0, told.texts.length / 2) // it is drawn once more when its size is known
    return told.texts.map(({ words: text }) => text)
  }

  test('is told in seconds, frames or beats of the kit’s tempo, where they are', () => {
    expect(words('seconds')).toEqual(['0.0 s', '0.5 s', '1.0 s'])
    expect(told.texts.map(({ x }) => x)).toEqual([4, 204, 404])
    expect(words('frames')).toEqual(['0', '20000', '40000'])
    expect(words('beats')).toEqual(['0.0', '0.5', '1.0', '1.5', '2.0'])
  })

  test('a grid of beats has its own tempo and first beat', () => {
    expect(words('beats', { grid: { kind: 'beats', tempoBpm: 240, firstSeconds: 0.25 } as never })).toEqual(['-1', '0', '1', '2', '3'])
    expect(told.texts.map(({ x }) => Math.round(x - 4))).toEqual([0, 100, 200, 300, 400])
  })
})

test('the overview goes where it is touched, with that place in the middle, and stops at both ends', () => {
  const go = jest.fn()
  render(<Overview analysis={analysis} view={{ start: 0, end: 12_000, gain: 1 }} onView={go} />)
  const on = place('Overview')
  pointer(on, 'pointerdown', 200, 5)
  pointer(on, 'pointermove', 395, 5)
  pointer(on, 'pointermove', 5, 5)
  pointer(on, 'pointerup', 5, 5)
  expect(go.mock.calls.map(([next]) => (next as typeof view).start)).toEqual([18_000, 36_000, 0])
  expect(told.rects[0]).toEqual([0, 0, 100, HEIGHT]) // what of it is seen
})

test('the spectrogram of what is seen is asked for once it rests, and the one before stands where it belongs until then', async () => {
  jest.useFakeTimers({ doNotFake: ['performance'] })
  mockSpectrogram.mockResolvedValue(new Uint8Array(1))
  const { rerender } = render(<Spectrogram source={source} view={view} height={72} />)
  rerender(<Spectrogram source={source} view={{ start: 0, end: 24_000, gain: 1 }} height={72} />)
  expect(mockSpectrogram).not.toHaveBeenCalled()
  await act(async () => void jest.advanceTimersByTime(100))
  expect(mockSpectrogram.mock.calls).toEqual([[audio, 0, 24_000, WIDTH, 96]])
  expect(told.images.at(-1)).toEqual([0, 0, WIDTH, HEIGHT])
  rerender(<Spectrogram source={source} view={{ start: 12_000, end: 24_000, gain: 1 }} height={72} />)
  expect(told.images.at(-1)).toEqual([-WIDTH, 0, 2 * WIDTH, HEIGHT])
})
