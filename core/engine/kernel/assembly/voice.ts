import {
  NEVER, RayField_stageCount, RayField_stages, RING_FADES, SetUp_arena, SetUp_directory, SetUp_stopFadeFrames, stageCodes_filter1,
  stageCodes_crush, stageCodes_drive, stageCodes_driveAfter, stageCodes_wait, v_ahead, v_isPrimed, stageCodes_edges, stageCodes_filter2, stageCodes_level, stageCodes_lowCut, stageCodes_transient, stageCodes_width, v_active, v_endFrame, v_fadeFrames, v_fadeStart, v_frames, v_isLive, v_loops, v_over, v_position, v_program,
  v_ray, v_right, v_rings, v_startFrame,
} from './constants' // prettier-ignore
import { DRIVE_FRAMES } from '../../voice/both/drive'
export { runEffect } from '../../mix/effects/both/effect'
import { applyCrush, applyDrive, applyEdges, applyTransient, applyWait, applyWidth } from './written-once'
import { filter } from './filter'
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

/** A voice that is read ahead begins as many frames before it is heard; one that is moved is begun by the engine. */
function prime(e: usize, number: i32): void {
  const d = e + ((<usize>number) << 3)
  store<i32>(e + ((<usize>number) << 2), 1, v_isPrimed)
  for (let ahead = load<f64>(d, v_ahead); ahead > 0; ahead -= DRIVE_FRAMES)
    renderPiece(e, number, 0, load<f64>(d, v_startFrame) - ahead, <i32>DRIVE_FRAMES)
}

/** A stretch in which nothing changes its way of moving; `at` is where it lies in the block. Before its start nothing of it is heard. */
export function renderPiece(e: usize, number: i32, at: i32, start: f64, count: i32): void {
  const voice = <usize>number
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const ahead = load<f64>(d, v_ahead)
  if (ahead > 0 && load<i32>(w, v_isPrimed) == 0) prime(e, number)
  settleOver(d)
  const end = start + <f64>count
  const heardFrom = load<f64>(d, v_startFrame)
  const length = start < heardFrom ? count : <i32>max<f64>(0, min<f64>(end, load<f64>(d, v_over)) - start)
  const stereo = load<i32>(w, v_right) >= 0
  store<f64>(d, heardFrom - ahead, v_startFrame)
  const produced = length > 0 ? readSource(e, voice, start, length, stereo) : 0
  const ended = load<i32>(w, v_loops) == 0 && load<f64>(d, v_position) >= load<f64>(d, v_frames)
  const rings = load<i32>(w, v_rings) != 0
  // What drive still holds of a clip that has ended comes out of it.
  if (ended && ahead > 0 && !rings) store<f64>(d, min<f64>(load<f64>(d, v_endFrame), start + <f64>produced + 2 * ahead), v_endFrame)
  // A filter rings on after its clip; it gets a short fade that begins on the very frame where the clip ends.
  if (ended && rings && load<f64>(d, v_fadeStart) == NEVER) {
    store<f64>(d, start + <f64>produced + ahead, v_fadeStart)
    store<f64>(d, RING_FADES * load<f64>(e, SetUp_stopFadeFrames), v_fadeFrames)
  }
  settleOver(d)
  const goesOn = rings || ahead > 0
  let heard = goesOn ? <i32>min<f64>(<f64>length, max<f64>(0, load<f64>(d, v_over) - start)) : produced
  if (start < heardFrom) heard = length
  if (heard > 0) runStages(e, voice, start, heard, stereo)
  store<f64>(d, heardFrom, v_startFrame)
  if (start < heardFrom) return
  if (heard > 0) {
    if (load<f64>(d, v_fadeStart) != NEVER) applyFade(e, voice, start, heard, stereo)
    settleGains(e, voice, start, heard)
    addToBus(e, voice, at, heard, stereo)
    addToSends(e, voice, at, heard, stereo)
  }
  if (end >= load<f64>(d, v_over) || (ended && !goesOn)) store<i32>(w, OVER, v_active)
}

/** Settles the frame on which a voice is over whatever its clip does: its envelope's end, or that of its last fade. */
function settleOver(d: usize): void {
  store<f64>(d, min<f64>(load<f64>(d, v_endFrame), load<f64>(d, v_fadeStart) + load<f64>(d, v_fadeFrames)), v_over)
}

/** What its ray's program says that a voice passes, in its order; a stage that holds back sets the voice's time back by as much. */
function runStages(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const w = e + (voice << 2)
  const arena = <usize>load<f64>(e, SetUp_arena)
  const ray = arena + ((<usize>load<i32>(w, v_ray)) << 3)
  const program = load<i32>(<usize>load<f64>(e, SetUp_directory) + ((<usize>load<i32>(w, v_program)) << 2))
  const stages = arena + ((<usize>(<f64>program + load<f64>(ray, RayField_stages << 3))) << 3)
  const passed = <i32>load<f64>(ray, RayField_stageCount << 3)
  for (let i = 0; i < passed; i++) {
    const code = <i32>load<f64>(stages + ((<usize>i) << 3))
    if (start < load<f64>(e + (voice << 3), v_startFrame)) return // it has not begun for this stage, nor for what follows
    if (code == stageCodes_level) applyLevel(e, voice, start, count, stereo)
    else if (code == stageCodes_filter1) filter(e, voice, 0, start, count, stereo)
    else if (code == stageCodes_filter2) filter(e, voice, 1, start, count, stereo)
    else if (code == stageCodes_transient) applyTransient(e, voice, start, count, stereo)
    else if (code == stageCodes_edges) applyEdges(e, voice, start, count, stereo)
    else if (code == stageCodes_lowCut) filter(e, voice, 2, start, count, stereo)
    else if (code == stageCodes_crush) applyCrush(e, voice, start, count, stereo)
    else if (code == stageCodes_drive) applyDrive(e, voice, 0, start, count, stereo)
    else if (code == stageCodes_driveAfter) applyDrive(e, voice, 1, start, count, stereo)
    else if (code == stageCodes_wait) applyWait(e, voice, count, stereo)
    else if (code == stageCodes_width && stereo) applyWidth(e, voice, start, count)
  }
}
