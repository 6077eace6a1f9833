import type { Clip } from '@heliaster/core/kit'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { View } from 'react-native'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { lanesOf } from './lanes'
import type { Slices } from './slices-view'
import { edgesOf, sliceAt, useSliceHand } from './use-slice-hand'
import type { HandMode } from './use-slice-hand'

/** Eight slices of a thousand frames, ten frames to a px. */
const PX_PER_SLICE = 100
const slices = Array.from({ length: 8 }, (_, i) => ({ id: `slice-${i}`, frame: i * 1000, values: {} }) as unknown as Slices[number])
const clip = { startFrame: 0, endFrame: 8000 } as Clip
const pad = aPad(1)
const level = lanesOf(aKitOf(pad), pad, pad.rays[0]!.id).find(({ key }) => key === 'level')!
const HEIGHT = 100

const told = { choose: jest.fn(), slices: jest.fn(), cut: jest.fn(), done: jest.fn() }
let amounts: Amounts
let span: SliceSpan

function Ground({ mode, from, marked }: { readonly mode: HandMode; readonly from: Amounts; readonly marked: SliceSpan }) {
  const [now, setNow] = useState({ amounts: from, span: marked })
  ;({ amounts, span } = now)
  const hand = useSliceHand({
    clip,
    slices,
    amounts: now.amounts,
    lane: level,
    mode,
    span: now.span,
    height: HEIGHT,
    frameAt: (x) => (x / PX_PER_SLICE) * 1000,
    xOf: (frame) => (frame / 1000) * PX_PER_SLICE,
    gapFrames: 100,
    onChoose: (chosen) => {
      told.choose(chosen)
      setNow((before) => ({ ...before, span: chosen }))
    },
    onAmounts: (drawn, at) => setNow({ amounts: drawn, span: at }),
    onSlices: told.slices,
    onCutAt: told.cut,
    onDone: told.done,
  })
  return <View ref={hand} testID="ground" />
}
const show = (mode: HandMode, from: Amounts = Array(8).fill(undefined), marked: SliceSpan = { first: 0, last: 0 }) =>
  render(<Ground mode={mode} from={from} marked={marked} />)
function drag(...through: readonly (readonly [x: number, y: number])[]) {
  const pointer = (type: string, [x, y]: readonly [number, number]) =>
    fireEvent(screen.getByTestId('ground'), Object.assign(new MouseEvent(type, { bubbles: true, clientX: x, clientY: y }), { pointerId: 1, pointerType: 'mouse' })) // prettier-ignore
  pointer('pointerdown', through[0]!)
  for (const place of through.slice(1)) pointer('pointermove', place)
  pointer('pointerup', through.at(-1)!)
}
const shown = () => amounts.map((amount) => amount ?? '.').join(' ')

beforeEach(() => {
  jest.clearAllMocks()
  Element.prototype.setPointerCapture = () => undefined
})

test('a slice is the one that a frame lies in, and its edges are the clip’s at its ends', () => {
  expect([-5, 0, 999, 1000, 9999].map((frame) => sliceAt(slices, frame))).toEqual([0, 0, 0, 1, 7])
  expect(edgesOf(clip, slices, { first: 2, last: 3 })).toEqual([2000, 4000])
  expect(edgesOf(clip, slices, { first: 7, last: 7 })).toEqual([7000, 8000])
})

test('drawing sets what the finger passes over, none left out between, in one step', () => {
  show('draw')
  drag([150, 0], [450, 0])
  expect(shown()).toBe('. 12 12 12 12 . . .')
  expect(span).toEqual({ first: 4, last: 4 })
  drag([650, 100], [750, 0])
  expect(amounts.slice(5, 6)).toEqual([undefined])
  expect(amounts[7]).toBe(12)
  expect(amounts[6]!).toBeLessThan(-36) // off
  expect(told.done).toHaveBeenCalledTimes(2)
  expect(told.choose).not.toHaveBeenCalled()
})

test('a stretch is chosen by a drag either way, and changes nothing by itself', () => {
  show('stretch')
  drag([550, 50], [250, 50])
  expect(told.choose.mock.calls.map(([one]) => one as SliceSpan)).toEqual([{ first: 5, last: 5 }, { first: 2, last: 5 }])
  expect([shown(), told.done.mock.calls.length]).toEqual(['. . . . . . . .', 0])
}) // prettier-ignore

test('a stretch is taken by its middle and moved with what is drawn on it; back where it was it has moved nothing', () => {
  show('stretch', [undefined, 1, 2, 3, undefined, undefined, undefined, undefined], { first: 1, last: 3 })
  drag([250, 50], [450, 50])
  expect([shown(), span]).toEqual(['. . . 1 2 3 . .', { first: 3, last: 5 }])
  expect(told.done).toHaveBeenCalledTimes(1)
  drag([450, 50], [550, 50], [450, 50])
  expect(shown()).toBe('. . . 1 2 3 . .')
})

test('a tap inside of a stretch chooses the slice alone', () => {
  show('stretch', [undefined, 1, 2, 3, undefined, undefined, undefined, undefined], { first: 1, last: 3 })
  drag([250, 50])
  expect(told.choose).toHaveBeenLastCalledWith({ first: 2, last: 2 })
  expect(shown()).toBe('. 1 2 3 . . . .')
})

test('an edge of a stretch is taken near it, the nearer one of two, and a stretch never turns round', () => {
  show('stretch', [undefined, 1, 3, undefined, undefined, undefined, undefined, undefined], { first: 1, last: 2 })
  drag([295, 50], [480, 50])
  expect(span).toEqual({ first: 1, last: 4 })
  expect(amounts.slice(1, 5).every((amount) => amount !== undefined)).toBe(true)
  drag([495, 50], [20, 50])
  expect(span).toEqual({ first: 1, last: 1 })
})

test('its beginning goes the other way, as far as its end', () => {
  show('stretch', [undefined, undefined, undefined, undefined, 1, 3, undefined, undefined], { first: 4, last: 5 })
  drag([405, 50], [150, 50])
  expect(span).toEqual({ first: 1, last: 5 })
  drag([105, 50], [790, 50])
  expect(span).toEqual({ first: 5, last: 5 })
})

test('a border is taken near it and moved, never over another; elsewhere a tap makes one', () => {
  show('cut')
  drag([305, 50], [350, 50])
  expect((told.slices.mock.lastCall![0] as typeof slices).map(({ frame }) => frame)).toEqual([0, 1000, 2000, 3500, 4000, 5000, 6000, 7000])
  drag([305, 50], [20, 50])
  const moved = (told.slices.mock.lastCall![0] as typeof slices).map(({ frame }) => frame)
  expect(moved[3]!).toBeGreaterThanOrEqual(moved[2]! + 100)
  expect(told.cut).not.toHaveBeenCalled()
  drag([350, 50])
  expect(told.cut.mock.calls).toEqual([[3500]])
  expect(told.done).toHaveBeenCalledTimes(3)
})
