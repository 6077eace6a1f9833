import {
  NEVER, RING_FADES, SetUp_stopFadeFrames, v_active, v_ahead, v_endFrame, v_fadeFrames, v_fadeStart, v_frames, v_loops, v_over, v_position, v_right,
  v_rings, v_startFrame,
} from './constants' // prettier-ignore
import { addToBus, addToSends, settleGains } from './gains'
import { applyFade } from './level'
import { readSource } from './source'

/** What `active` says of a voice that came to its end in this block. */
export const OVER = 2

export function isStereo(w: usize): bool {
  return load<i32>(w, v_right) >= 0
}

/** How many of a piece's frames lie before the voice is over whatever its clip does. */
export function lengthOf(d: usize, start: f64, count: i32): i32 {
  return <i32>max<f64>(0, min<f64>(start + <f64>count, load<f64>(d, v_over)) - start)
}

/** Whether a clip has been read to its end. */
function hasEnded(d: usize, w: usize): bool {
  return load<i32>(w, v_loops) == 0 && load<f64>(d, v_position) >= load<f64>(d, v_frames)
}

/** Reads a piece into the scratch blocks, counts the voice's time from where it is read, and returns how many frames of it have to pass the stages. */
export function readPiece(e: usize, voice: usize, start: f64, length: i32): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const ahead = load<f64>(d, v_ahead)
  const heardFrom = load<f64>(d, v_startFrame)
  store<f64>(d, heardFrom - ahead, v_startFrame)
  const produced = length > 0 ? readSource(e, voice, start, length, isStereo(w)) : 0
  const ended = hasEnded(d, w)
  const rings = load<i32>(w, v_rings) != 0
  // What drive still holds of a clip that has ended comes out of it.
  if (ended && ahead > 0 && !rings) store<f64>(d, min<f64>(load<f64>(d, v_endFrame), start + <f64>produced + 2 * ahead), v_endFrame)
  // A filter rings on after its clip; it gets a short fade that begins on the very frame where the clip ends.
  if (ended && rings && load<f64>(d, v_fadeStart) == NEVER) {
    store<f64>(d, start + <f64>produced + ahead, v_fadeStart)
    store<f64>(d, RING_FADES * load<f64>(e, SetUp_stopFadeFrames), v_fadeFrames)
  }
  settleOver(d)
  if (start < heardFrom) return length
  return rings || ahead > 0 ? <i32>min<f64>(<f64>length, max<f64>(0, load<f64>(d, v_over) - start)) : produced
}

/** Adds what has passed the stages to where it is heard. */
export function hearPiece(e: usize, voice: usize, at: i32, start: f64, heard: i32): void {
  const stereo = isStereo(e + (voice << 2))
  if (load<f64>(e + (voice << 3), v_fadeStart) != NEVER) applyFade(e, voice, start, heard, stereo)
  settleGains(e, voice, start, heard)
  addToBus(e, voice, at, heard, stereo)
  addToSends(e, voice, at, heard, stereo)
}

/** Notes a voice that is over after so many frames, for the engine to take leave of it. */
export function leave(e: usize, voice: usize, start: f64, count: i32): void {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const goesOn = load<i32>(w, v_rings) != 0 || load<f64>(d, v_ahead) > 0
  if (start + <f64>count >= load<f64>(d, v_over) || (hasEnded(d, w) && !goesOn)) store<i32>(w, OVER, v_active)
}

/** Settles the frame on which a voice is over whatever its clip does: its envelope's end, or that of its last fade. */
export function settleOver(d: usize): void {
  store<f64>(d, min<f64>(load<f64>(d, v_endFrame), load<f64>(d, v_fadeStart) + load<f64>(d, v_fadeFrames)), v_over)
}
