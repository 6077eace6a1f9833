import { v_active, v_ahead, v_isLive, v_isPrimed, v_over, v_startFrame } from './constants'
import { DRIVE_FRAMES } from '../../voice/both/drive'
export { runEffect } from '../../mix/effects/both/effect'
import { hearPiece, isStereo, leave, lengthOf, OVER, readPiece, settleOver } from './piece'
import { runStages } from './stages'
import { playStraight } from './straight'

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
  if (load<f64>(d, v_ahead) > 0 && load<i32>(w, v_isPrimed) == 0) prime(e, number)
  settleOver(d)
  const heardFrom = load<f64>(d, v_startFrame)
  const isHeard = start >= heardFrom
  if (isHeard && playStraight(e, voice, at, start, lengthOf(d, start, count))) return leave(e, voice, start, count)
  const heard = readPiece(e, voice, start, isHeard ? lengthOf(d, start, count) : count)
  if (heard > 0) runStages(e, voice, start, heard, isStereo(w))
  store<f64>(d, heardFrom, v_startFrame)
  if (!isHeard) return
  if (heard > 0) hearPiece(e, voice, at, start, heard)
  leave(e, voice, start, count)
}
