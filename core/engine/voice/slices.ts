import {
  BandField,
  ClipField,
  Head,
  MOST_SENDS,
  ParamCode,
  RayField,
  SendField,
  SliceField,
  SliceSendField,
  TurnField,
} from '../program/layout'
import type { EngineState } from '../state'

/**
 * What is set for parts of a clip alone. A slice reaches from its frame to that of the next; before the first nothing is set.
 * Level, place and sends go over to what comes next within the last 3 ms before its frame, so that a strike there begins
 * with what is its own; tuning changes on the frame.
 *
 *   level  ‾‾‾‾‾‾‾‾‾\__________________/‾‾‾‾‾
 *                    | slice            | slice
 *
 * All of it is a function of the place in the clip that is read, at whatever rate and in either direction: runs of a voice
 * end where a way has a corner.
 */
export const SLICE_LEAD_SECONDS = 0.003

const { gainDb, pan, tuneCents } = ParamCode

/**
 * Where a voice stands: the rows of its slice and of what comes then (0 for what comes before the first), how far it has gone
 * over to that, and how far off the next corner is; numbers in a row cost no memory (see math.ts).
 */
const [ROW, NEXT, SHARE, DISTANCE] = [0, 1, 2, 3]
const stand = new Float64Array(4)

/** Takes over the slices of a clip, of a row of ClipField. */
export function beginSlices({ voices: v, memory }: EngineState, voice: number, clip: number): void {
  const { arena } = memory
  v.sliceCount[voice] = v.ownSliceCount[voice] = arena[clip + ClipField.sliceCount]
  v.slices[voice] = v.ownSlices[voice] = clip + arena[clip + ClipField.slices]
  v.turnsBackAfter[voice] = arena[clip + ClipField.turnsBackAfter]
  for (let i = voice * MOST_SENDS; i < (voice + 1) * MOST_SENDS; i++) {
    v.sliceSend[i] = 1
    v.sliceSendStep[i] = 0
  }
}

/** After an edit: the slices that its clip has now, in the `program` its pad plays; those it began with where that has none of its clip. */
export function followSlices(engine: EngineState, voice: number, program: number): void {
  const { voices: v, memory } = engine
  v.slices[voice] = v.ownSlices[voice]
  v.sliceCount[voice] = v.ownSliceCount[voice]
  const clip = program === 0 ? 0 : sameClip(engine, voice, program)
  if (clip === 0) return
  const count = memory.arena[clip + ClipField.sliceCount]
  if (count > 0) v.isLive[voice] = 1
  v.slices[voice] = clip + memory.arena[clip + ClipField.slices]
  v.sliceCount[voice] = count
  // A voice that lost them lets what they send stand as if there had been none.
  if (count === 0) settleSends(engine, voice, 0, 0, 0, 1)
}

/** The clip of a program's cells whose samples a voice plays, as its ray has it; 0 where there is none. */
function sameClip({ memory, voices: v }: EngineState, voice: number, program: number): number {
  const { arena } = memory
  const hash = arena[v.ray[voice] + RayField.hash]
  for (let place = 0; place < arena[program + Head.rayCount]; place++) {
    const ray = program + arena[program + Head.rays] + place * RayField.length
    if (arena[ray + RayField.hash] !== hash) continue
    const hasOwn = arena[ray + RayField.bandCount] >= 0
    const bands = program + (hasOwn ? arena[ray + RayField.bands] : arena[program + Head.bands])
    const end = bands + (hasOwn ? arena[ray + RayField.bandCount] : arena[program + Head.bandCount]) * BandField.length
    for (let band = bands; band < end; band += BandField.length) {
      const turns = program + arena[band + BandField.turns]
      for (let turn = turns; turn < turns + arena[band + BandField.turnCount] * TurnField.length; turn += TurnField.length) {
        const clip = program + arena[turn + TurnField.clips] + place * ClipField.length
        if (arena[clip + ClipField.chunk] === v.chunk[voice] && arena[clip + ClipField.left] === v.left[voice]) return clip
      }
    }
  }
  return 0
}

/** How many frames a run may take from where a voice reads now, at so many frames of its clip a frame, without passing a corner. */
export function framesToCorner(engine: EngineState, voice: number, rate: number): number {
  const { voices: v } = engine
  const position = v.position[voice]
  standAt(engine, voice, position)
  let distance = stand[DISTANCE]
  if (v.ahead[voice] > 0) {
    standAt(engine, voice, position - v.ahead[voice] * rate)
    distance = Math.min(distance, stand[DISTANCE])
  }
  return Math.max(1, Math.floor(distance / rate))
}

/** By how much the slice that a voice reads now is tuned. */
export function sliceCents(engine: EngineState, voice: number): number {
  standAt(engine, voice, engine.voices.position[voice])
  return valueIn(engine, stand[ROW], SliceField.tuneCents)
}

/** Adds what slices do where a run of `frames` begins and where it ends to sums by parameter, and sets its sends on their way. */
export function addSlices(engine: EngineState, voice: number, rate: number, frames: number, from: Float64Array, to: Float64Array): void {
  const { voices: v } = engine
  const cents = sliceCents(engine, voice)
  from[tuneCents] += cents
  to[tuneCents] += cents
  const heard = v.position[voice] - v.ahead[voice] * rate
  standAt(engine, voice, heard)
  const [row, next, share] = [stand[ROW], stand[NEXT], stand[SHARE]]
  from[gainDb] += between(engine, row, next, share, SliceField.gainDb)
  from[pan] += between(engine, row, next, share, SliceField.pan)
  const turned = v.turnsBackAfter[voice]
  standAt(engine, voice, heard + frames * rate)
  // A run ends on a corner at the latest: what comes behind it is not begun.
  const end = stand[ROW] === row ? stand[SHARE] : turned > 0 && isBack(engine, voice, heard) ? 0 : 1
  to[gainDb] += between(engine, row, next, end, SliceField.gainDb)
  to[pan] += between(engine, row, next, end, SliceField.pan)
  settleSends(engine, voice, row, next, share, frames, end)
}

/** What a slice lets through of each send, from here to the end of a run. */
function settleSends(engine: EngineState, voice: number, row: number, next: number, share: number, frames: number, end = share): void {
  const { voices: v, memory } = engine
  for (let send = 0; send < memory.arena[v.ray[voice] + RayField.sendCount]; send++) {
    const at = voice * MOST_SENDS + send
    const here = sendIn(engine, voice, row, send)
    const way = sendIn(engine, voice, next, send) - here
    v.sliceSend[at] = here + way * share
    v.sliceSendStep[at] = (way * (end - share)) / frames
  }
}

/** How much of a send a slice lets through: all of it, where it is only slices that send there nothing, or what it says. */
function sendIn({ memory, voices: v }: EngineState, voice: number, row: number, send: number): number {
  const { arena } = memory
  const at = memory.directory[v.program[voice]] + arena[v.ray[voice] + RayField.sends] + send * SendField.length
  if (row > 0)
    for (let i = 0; i < arena[row + SliceField.sendCount]; i++) {
      const own = row + arena[row + SliceField.sends] + i * SliceSendField.length
      if (arena[own + SliceSendField.to] === arena[at + SendField.to]) return arena[own + SliceSendField.gain]
    }
  return arena[at + SendField.isOfSlices] === 1 ? 0 : 1
}

const valueIn = ({ memory }: EngineState, row: number, field: number): number => (row > 0 ? memory.arena[row + field] : 0)

function between(engine: EngineState, row: number, next: number, share: number, field: number): number {
  const value = valueIn(engine, row, field)
  return share === 0 ? value : value + (valueIn(engine, next, field) - value) * share
}

/** Whether a loop that goes there and back is on its way back. */
function isBack({ voices: v }: EngineState, voice: number, position: number): boolean {
  if (v.turnsBackAfter[voice] <= 0 || v.loopPeriod[voice] === 0 || position < v.loopStart[voice]) return false
  return (position - v.loopStart[voice]) % v.loopPeriod[voice] >= v.turnsBackAfter[voice]
}

/** Settles where a voice stands that reads at a position. What goes round has its start again behind its end. */
function standAt(engine: EngineState, voice: number, position: number): void {
  const { voices: v, memory, sampleRateHz } = engine
  const { arena } = memory
  const hasLoop = v.loopPeriod[voice] > 0
  const goesRound = v.loops[voice] !== 0 && v.leaves[voice] === 0
  const start = hasLoop ? v.loopStart[voice] : v.roundFrom[voice]
  const period = hasLoop ? v.loopPeriod[voice] : goesRound ? v.frames[voice] - start : Infinity
  const turn = v.turnsBackAfter[voice]
  const back = isBack(engine, voice, position)
  const into = position < start ? position - start : period === Infinity ? position - start : (position - start) % period
  // On its way back it begins with the sample that it came to last.
  const at = start + (back ? Math.max(0, 2 * turn - 1 - into) : into)
  const first = v.slices[voice]
  const end = first + v.sliceCount[voice] * SliceField.length
  let next = first
  while (next < end && arena[next + SliceField.frame] <= at) next += SliceField.length
  const row = next === first ? 0 : next - SliceField.length
  const seam = goesRound && turn === 0 ? start + period : Infinity
  const nextFrame = next < end ? arena[next + SliceField.frame] : Infinity
  const border = Math.min(seam, nextFrame)
  const from = row > 0 ? arena[row + SliceField.frame] : -Infinity
  const corner = border - Math.min(SLICE_LEAD_SECONDS * sampleRateHz * v.baseRate[voice], border - from)
  stand[ROW] = row
  stand[NEXT] = seam <= nextFrame ? (seam === Infinity ? row : rowAt(engine, first, end, start)) : next
  stand[SHARE] = at > corner ? (at - corner) / (border - corner) : 0
  const turnsAt = turn > 0 ? start + turn - 1 : Infinity
  stand[DISTANCE] = back ? at - Math.max(start, at > corner ? corner : from) : Math.min(turnsAt, at < corner ? corner : border) - at
}

/** The slice of a frame among rows of them. */
function rowAt({ memory }: EngineState, first: number, end: number, frame: number): number {
  let row = 0
  for (let next = first; next < end && memory.arena[next + SliceField.frame] <= frame; next += SliceField.length) row = next
  return row
}
