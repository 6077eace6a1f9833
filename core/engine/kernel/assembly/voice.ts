import {
  filterCodes_off, NEVER, RayField_stageCount, RayField_stages, RING_FADES, SetUp_arena, SetUp_directory, SetUp_stopFadeFrames, stageCodes_filter1,
  stageCodes_level, v_active, v_endFrame, v_fadeFrames, v_fadeStart, v_filterType, v_frames, v_isLive, v_loops, v_over, v_position, v_program,
  v_ray, v_right, v_startFrame,
} from './constants' // prettier-ignore
import { filter, filterMoving } from './filter'
import { addToBus, addToSends, settleGains } from './gains'
import { applyFade, applyLevel } from './level'
import { readSource } from './source'

/**
 * Renders `count` frames of voices from number `from` on, from `frame` on, into their buses; `e` is where the engine's own
 * arrays begin. Stops at a voice that is moved while it sounds, which is rendered in runs by `renderPiece`, and returns
 * its number, or `top`. A voice that is over is left with `active` OVER, for the engine to take leave of.
 */
export function renderVoices(e: usize, from: i32, top: i32, frame: f64, count: i32): i32 {
  for (let voice = from; voice < top; voice++) {
    const w = e + ((<usize>voice) << 2)
    if (load<i32>(w, v_active) == 0) continue
    if (load<i32>(w, v_isLive) != 0) return voice
    const d = e + ((<usize>voice) << 3)
    const begin = max<f64>(0, load<f64>(d, v_startFrame) - frame)
    if (begin < <f64>count) renderPiece(e, voice, <i32>begin, frame + begin, count - <i32>begin)
    else {
      settleOver(d)
      if (frame + <f64>count >= load<f64>(d, v_over)) store<i32>(w, OVER, v_active) // it faded before it began
    }
  }
  return top
}

/** What `active` says of a voice that came to its end in this block. */
const OVER = 2

/** A stretch in which nothing changes its way of moving; `at` is where it lies in the block. */
export function renderPiece(e: usize, number: i32, at: i32, start: f64, count: i32): void {
  const voice = <usize>number
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  settleOver(d)
  const end = start + <f64>count
  const length = <i32>max<f64>(0, min<f64>(end, load<f64>(d, v_over)) - start)
  const stereo = load<i32>(w, v_right) >= 0
  const produced = length > 0 ? readSource(e, voice, start, length, stereo) : 0
  const ended = load<i32>(w, v_loops) == 0 && load<f64>(d, v_position) >= load<f64>(d, v_frames)
  const rings = load<i32>(w, v_filterType) != filterCodes_off
  // A filter rings on after its clip; it gets a short fade that begins on the very frame where the clip ends.
  if (ended && rings && load<f64>(d, v_fadeStart) == NEVER) {
    store<f64>(d, start + <f64>produced, v_fadeStart)
    store<f64>(d, RING_FADES * load<f64>(e, SetUp_stopFadeFrames), v_fadeFrames)
    settleOver(d)
  }
  const heard = rings ? <i32>min<f64>(<f64>length, max<f64>(0, load<f64>(d, v_over) - start)) : produced
  if (heard > 0) {
    runStages(e, voice, start, heard, stereo)
    if (load<f64>(d, v_fadeStart) != NEVER) applyFade(e, voice, start, heard, stereo)
    settleGains(e, voice, start, heard)
    addToBus(e, voice, at, heard, stereo)
    addToSends(e, voice, at, heard, stereo)
  }
  if (end >= load<f64>(d, v_over) || (ended && !rings)) store<i32>(w, OVER, v_active)
}

/** Settles the frame on which a voice is over whatever its clip does: its envelope's end, or that of its last fade. */
function settleOver(d: usize): void {
  store<f64>(d, min<f64>(load<f64>(d, v_endFrame), load<f64>(d, v_fadeStart) + load<f64>(d, v_fadeFrames)), v_over)
}

/** What its ray's program says that a voice passes, in its order. */
function runStages(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const w = e + (voice << 2)
  const arena = <usize>load<f64>(e, SetUp_arena)
  const ray = arena + ((<usize>load<i32>(w, v_ray)) << 3)
  const program = load<i32>(<usize>load<f64>(e, SetUp_directory) + ((<usize>load<i32>(w, v_program)) << 2))
  const stages = arena + ((<usize>(<f64>program + load<f64>(ray, RayField_stages << 3))) << 3)
  const passed = <i32>load<f64>(ray, RayField_stageCount << 3)
  for (let i = 0; i < passed; i++) {
    const code = <i32>load<f64>(stages + ((<usize>i) << 3))
    if (code == stageCodes_level) applyLevel(e, voice, start, count, stereo)
    else if (code == stageCodes_filter1) {
      if (load<i32>(w, v_isLive) == 0) filter(e, voice, start, count, stereo)
      else filterMoving(e, voice, count, stereo)
    }
  }
}
