import { RoomValue, UnitField } from '../../../program/layout'
import { get, getLine, put, putLine, toPlace } from '../../../voice/both/cells'
import { valueAt } from './parts'
import { BIG_BINS, BIG_FRAMES, HEAD_FRAMES, INPUT, SMALL_BINS, TURNS, WORK } from './sizes'
import { transform } from './transform'

/**
 * A recorded impulse of a room, to the sample and without delay (W. G. Gardner, "Efficient convolution without
 * input-output delay", JAES 1995): its first 128 frames directly, then parts of 128 frames, then of 1024, whose work is
 * spread over the eight small blocks before it is needed.
 *
 *   impulse |head|small|small| ... 15 |  big  |  big  | ...
 *           0   128   256            2048    3072
 *
 * Its lines: head, spectra of the parts and a table of turns, as `room-impulse.ts` lays them out; then what it keeps.
 * Spectra are stored as real parts and then imaginary ones, from 0 Hz to half the rate.
 */

const STEPS: i32 = 8
const TURN: i32 = 0

export function convolve(unit: i32, left: i32, right: i32, at: f64, count: i32): void {
  const state = unit + UnitField.state0
  const values = unit + UnitField.now0
  const sides: i32 = get(values + RoomValue.isStereo) !== 0 ? 2 : 1
  const small: i32 = toPlace(get(values + RoomValue.smallParts))
  const big: i32 = toPlace(get(values + RoomValue.bigParts))
  const turns: i32 = toPlace(get(unit + UnitField.lines))
  const heads = turns + TURNS
  const input = heads + sides * (HEAD_FRAMES + small * SMALL_BINS + big * BIG_BINS)
  for (let i = 0; i < count; i++) {
    const turn: i32 = toPlace(get(state + TURN))
    if ((turn & (HEAD_FRAMES - 1)) === 0) beginBlock(turns, sides, small, big, turn)
    const inLeft = get(left + i)
    const inRight = get(right + i)
    putLine(input + (turn & (INPUT - 1)), inLeft)
    putLine(input + INPUT + (turn & (INPUT - 1)), inRight)
    const wetLeft = direct(heads, input, turn) + later(input, turn, 0)
    const wetRight = direct(heads + (sides - 1) * HEAD_FRAMES, input + INPUT, turn) + later(input, turn, 1)
    put(state + TURN, turn + 1 === LONGEST ? LONGEST - BIG_FRAMES * Math.max(1, small) * Math.max(1, big) : turn + 1)
    const mix = valueAt(unit, RoomValue.mix, at + i)
    put(left + i, inLeft + mix * (wetLeft - inLeft))
    put(right + i, inRight + mix * (wetRight - inRight))
  }
}
/** It counts so far, and then goes on from where all rings stood alike before. */
const LONGEST: i32 = 1073741824

function direct(head: i32, input: i32, turn: i32): f64 {
  const most = turn < HEAD_FRAMES ? turn + 1 : HEAD_FRAMES
  let sum: f64 = 0
  for (let k = 0; k < most; k++) sum += getLine(head + k) * getLine(input + ((turn - k) & (INPUT - 1)))
  return sum
}

function smallOut(input: i32): i32 {
  return input + 2 * INPUT + WORK + 2 * BIG_BINS
}

/** What small and big parts give at a frame. */
function later(input: i32, turn: i32, side: i32): f64 {
  const small = smallOut(input)
  const big = small + 2 * HEAD_FRAMES + ((turn >> 10) & 1) * 2 * BIG_FRAMES
  return getLine(small + side * HEAD_FRAMES + (turn & (HEAD_FRAMES - 1))) + getLine(big + side * BIG_FRAMES + (turn & (BIG_FRAMES - 1)))
}

/** Every 128 frames: what the small parts give until the next, and an eighth of the work of the big ones. */
function beginBlock(turns: i32, sides: i32, small: i32, big: i32, turn: i32): void {
  const spectra = turns + TURNS + sides * HEAD_FRAMES
  const bigSpectra = spectra + sides * small * SMALL_BINS
  const input = bigSpectra + sides * big * BIG_BINS
  const work = input + 2 * INPUT
  const sums = work + WORK
  const out = smallOut(input)
  const smallPast = out + 2 * HEAD_FRAMES + 4 * BIG_FRAMES
  const bigPast = smallPast + 2 * small * SMALL_BINS
  const block = turn >> 7
  if (turn === 0) clear(out, 2 * HEAD_FRAMES + 4 * BIG_FRAMES)
  if (small > 0) {
    takeSpectra(turns, input, turn, 2 * HEAD_FRAMES, work, smallPast + (block % small) * 2 * SMALL_BINS)
    clear(sums, 2 * SMALL_BINS)
    for (let part = 0; part < small && part < block; part++) {
      const past = smallPast + ((block - part + small) % small) * 2 * SMALL_BINS
      addProducts(
        sums,
        past,
        spectra + part * SMALL_BINS,
        sides === 2 ? spectra + (small + part) * SMALL_BINS : spectra + part * SMALL_BINS,
        HEAD_FRAMES,
      )
    }
    giveBack(turns, sums, 2 * HEAD_FRAMES, work, out, HEAD_FRAMES)
  }
  if (big > 0) bigWork(turns, sides, big, turn, bigSpectra, input, work, bigPast)
}

/** Its sums lie behind those of the small parts, which are done with. */
function bigWork(turns: i32, sides: i32, big: i32, turn: i32, spectra: i32, input: i32, work: i32, bigPast: i32): void {
  const sums = bigPast + 2 * big * BIG_BINS
  const step = (turn >> 7) & (STEPS - 1)
  const block = turn >> 10
  if (step === 0) {
    takeSpectra(turns, input, turn, 2 * BIG_FRAMES, work, bigPast + (block % big) * 2 * BIG_BINS)
    clear(sums, 2 * BIG_BINS)
  }
  // Shared out so that every step has as much to do.
  const from = (step * big) >> 3
  const to = ((step + 1) * big) >> 3
  for (let part = from; part < to && part < block; part++) {
    const past = bigPast + ((block - part + big) % big) * 2 * BIG_BINS
    addProducts(
      sums,
      past,
      spectra + part * BIG_BINS,
      sides === 2 ? spectra + (big + part) * BIG_BINS : spectra + part * BIG_BINS,
      BIG_FRAMES,
    )
  }
  if (step === STEPS - 1)
    giveBack(turns, sums, 2 * BIG_FRAMES, work, smallOut(input) + 2 * HEAD_FRAMES + ((block + 1) & 1) * 2 * BIG_FRAMES, BIG_FRAMES)
}

function clear(from: i32, count: i32): void {
  for (let i = 0; i < count; i++) putLine(from + i, 0)
}

/** Both sides of the last `size` frames before `turn`, transformed as one and told apart. */
function takeSpectra(turns: i32, input: i32, turn: i32, size: i32, work: i32, to: i32): void {
  for (let i = 0; i < size; i++) {
    const frame = turn - size + i
    putLine(work + i, frame < 0 ? 0 : getLine(input + (frame & (INPUT - 1))))
    putLine(work + size + i, frame < 0 ? 0 : getLine(input + INPUT + (frame & (INPUT - 1))))
  }
  transform(turns, work, work + size, size)
  const bins = size / 2 + 1
  for (let bin = 0; bin < bins; bin++) {
    const mirror = (size - bin) & (size - 1)
    const re = getLine(work + bin)
    const im = getLine(work + size + bin)
    const otherRe = getLine(work + mirror)
    const otherIm = getLine(work + size + mirror)
    putLine(to + bin, 0.5 * (re + otherRe))
    putLine(to + bins + bin, 0.5 * (im - otherIm))
    putLine(to + 2 * bins + bin, 0.5 * (im + otherIm))
    putLine(to + 3 * bins + bin, 0.5 * (otherRe - re))
  }
}

/** Adds what a part makes of both sides of a block. */
function addProducts(sums: i32, past: i32, part: i32, partRight: i32, half: i32): void {
  const bins = half + 1
  addProduct(sums, past, part, bins)
  addProduct(sums + 2 * bins, past + 2 * bins, partRight, bins)
}

function addProduct(sum: i32, one: i32, other: i32, bins: i32): void {
  for (let bin = 0; bin < bins; bin++) {
    const re = getLine(one + bin)
    const im = getLine(one + bins + bin)
    const otherRe = getLine(other + bin)
    const otherIm = getLine(other + bins + bin)
    putLine(sum + bin, getLine(sum + bin) + (re * otherRe - im * otherIm))
    putLine(sum + bins + bin, getLine(sum + bins + bin) + (re * otherIm + im * otherRe))
  }
}

/** The second half of what both sums stand for, in time; both go back as one. */
function giveBack(turns: i32, sums: i32, size: i32, work: i32, to: i32, each: i32): void {
  const bins = size / 2 + 1
  for (let bin = 0; bin < size; bin++) {
    const isMirrored = bin >= bins
    const from: i32 = isMirrored ? size - bin : bin
    const sign: f64 = isMirrored ? -1 : 1
    const re = getLine(sums + from)
    const im = sign * getLine(sums + bins + from)
    const rightRe = getLine(sums + 2 * bins + from)
    const rightIm = sign * getLine(sums + 3 * bins + from)
    // Conjugated, so that the same transform goes back.
    putLine(work + bin, re - rightIm)
    putLine(work + size + bin, -(im + rightRe))
  }
  transform(turns, work, work + size, size)
  for (let i = 0; i < each; i++) {
    putLine(to + i, getLine(work + size - each + i) / size)
    putLine(to + each + i, -getLine(work + 2 * size - each + i) / size)
  }
}
