import { centsToRatioIn } from '../math'
import { TABLES_PER_OCTAVE } from '../memory/reading-tables'
import { EnvelopeField, PointField } from '../program/layout'
import type { EngineState } from '../state'
import { envelopeIn, nextPointAfter } from './envelope'

/**
 * How a pitch envelope is followed: in cells, counted from the strike, within which the pitch goes straight in cents.
 *
 * A cell ends at a point of the envelope, and so early that what is straight differs from the bent way by
 * less than half a cent, and the positions of a whole segment, which sum up its rates, by less than a twentieth of a frame.
 * A way f(u) = u / (u + k (1 - u)) over D frames and A cents is bent by at most A / D² · 2 k |1 - k| / d³, d the smaller of
 * k + (1 - k) u at both ends; straight over h frames it is off by an eighth of that times h² at most, by a twelfth on average.
 */

/** A clip is read at most so many times as fast as it was recorded, and as slow. */
export const MOST_RATE = 64
/** How far one table lies from the next in cents of the rate: by place 0 the first one, at the engine's own rate. */
export const PLACES_PER_CENT = TABLES_PER_OCTAVE / 1200
/** What the kernel has to know too: the longest cell, the last place, how far a cell may be off, and by how much of itself a rate is off for a cent. */
export const pitchBounds = {
  LONGEST_FRAMES: 4096,
  MOST_PLACE: 6 * TABLES_PER_OCTAVE,
  MOST_CENTS_OFF: 0.5,
  MOST_FRAMES_OFF: 0.05,
  RATE_PER_CENT: 0.0005776226504666211,
}
/** So long is a cell at most, so that a rate that is multiplied from frame to frame begins anew now and then. */
const { LONGEST_FRAMES, MOST_PLACE, MOST_CENTS_OFF, MOST_FRAMES_OFF, RATE_PER_CENT } = pitchBounds

/** Cents within which the rate stays between its bounds, from where it is with none. */
export function heldCents(basePlace: number, cents: number): number {
  const most = (MOST_PLACE - basePlace) / PLACES_PER_CENT
  const least = (-MOST_PLACE - basePlace) / PLACES_PER_CENT
  return cents < least ? least : cents > most ? most : cents
}

/** Cents at both ends of a cell, and whether they are held at a bound; numbers in a row cost no memory (see math.ts). */
const ends = new Float64Array(2)
const areHeld = new Int32Array(2)
const bound = new Float64Array(1)

/** Begins the cell of a voice at a frame: how long it is, and rate and table at its start and from frame to frame. */
export function beginPitchCell(engine: EngineState, voice: number, frame: number): void {
  const { voices: v } = engine
  const length = pitchCellFrames(engine, voice, frame)
  const step = length > 1 ? (ends[1] - ends[0]) / length : 0
  v.cellStart[voice] = frame
  v.cellEnd[voice] = frame + length
  v.cellPlace[voice] = v.basePlace[voice] + ends[0] * PLACES_PER_CENT
  v.cellPlaceStep[voice] = step * PLACES_PER_CENT
  v.cellRate[voice] = ends[0]
  centsToRatioIn(v.cellRate, voice)
  v.cellRate[voice] *= v.baseRate[voice]
  v.cellRatio[voice] = step
  centsToRatioIn(v.cellRatio, voice)
}

/** How many frames from one on the pitch envelope of a voice may be taken as straight. */
export function pitchCellFrames(engine: EngineState, voice: number, frame: number): number {
  const { voices: v, memory } = engine
  const scale = v.otherScale[voice]
  const time = (frame - v.startFrame[voice]) * scale
  centsAt(engine, voice, time, 0)
  const next = (nextPointAfter(memory.arena, v.pitchEnv[voice], time) - time) / scale
  let length = LONGEST_FRAMES
  // A point between two frames has a cell of one frame to itself, which asks for the pitch at its start only.
  if (next < length) length = Math.max(1, Math.floor(next))
  findBend(engine, voice, time)
  if (bend[K] !== 1) {
    const curving = bend[SIZE] / (bend[HERE] * bend[HERE] * bend[HERE])
    length = Math.min(length, Math.max(1, Math.floor(Math.sqrt(mostSquare(engine, voice, ends[0]) / curving))))
  }
  centsAt(engine, voice, time + length * scale, 1)
  while (length > 1 && isTooLong(engine, voice, length)) {
    length = Math.ceil(length / 2)
    centsAt(engine, voice, time + length * scale, 1)
  }
  return length
}

/** The way that a frame is on: its k (1 for a straight one), how many frames it takes, A / D² · 2 k |1 - k|, and d at the frame. */
const [K, FRAMES, SIZE, HERE] = [0, 1, 2, 3]
const bend = new Float64Array(4)

function findBend({ voices: v, memory }: EngineState, voice: number, time: number): void {
  const { arena } = memory
  const first = v.pitchEnv[voice] + EnvelopeField.length
  const end = first + arena[v.pitchEnv[voice] + EnvelopeField.count] * PointField.length
  let to = first
  while (to < end && arena[to + PointField.frame] <= time) to += PointField.length
  bend[K] = to === first || to === end ? 1 : arena[to + PointField.k]
  if (bend[K] === 1) return
  const from = to - PointField.length
  const k = bend[K]
  bend[FRAMES] = (arena[to + PointField.frame] - arena[from + PointField.frame]) / v.otherScale[voice]
  const cents = Math.abs((arena[to + PointField.value] - arena[from + PointField.value]) * v.pitchShare[voice])
  bend[SIZE] = (cents * 2 * k * Math.abs(1 - k)) / (bend[FRAMES] * bend[FRAMES])
  bend[HERE] = k + ((1 - k) * ((time - arena[from + PointField.frame]) / v.otherScale[voice])) / bend[FRAMES]
}

/** How much a way may curve over a cell: cents a frame and frame, times the square of its frames; at most at so many cents. */
function mostSquare({ voices: v }: EngineState, voice: number, cents: number): number {
  bound[0] = cents
  centsToRatioIn(bound, 0)
  return Math.min(8 * MOST_CENTS_OFF, (12 * MOST_FRAMES_OFF) / (bend[FRAMES] * bound[0] * v.baseRate[voice] * RATE_PER_CENT))
}

/** Leaves the cents of the envelope, so many frames of its own time after the strike, among `ends`. */
function centsAt({ voices: v, memory }: EngineState, voice: number, time: number, end: number): void {
  ends[end] = time
  envelopeIn(ends, end, memory.arena, v.pitchEnv[voice])
  ends[end] *= v.pitchShare[voice]
  const held = heldCents(v.basePlace[voice], ends[end])
  areHeld[end] = held === ends[end] ? 0 : 1
  ends[end] = held
}

/** Whether the straight way over a cell is too far from the bent one, or the rate comes to a bound within. */
function isTooLong(engine: EngineState, voice: number, length: number): boolean {
  if (areHeld[0] !== areHeld[1]) return true
  if (bend[K] === 1) return false
  const there = bend[HERE] + ((1 - bend[K]) * length) / bend[FRAMES]
  const d = bend[HERE] < there ? bend[HERE] : there
  return (bend[SIZE] / (d * d * d)) * length * length > mostSquare(engine, voice, ends[0] > ends[1] ? ends[0] : ends[1])
}
