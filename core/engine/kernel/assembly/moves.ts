import { PARAMS, v_isLive, v_offset, v_runStart, v_still } from './constants'

export function isLive(e: usize, voice: usize): bool {
  return load<i32>(e + (voice << 2), v_isLive) != 0
}

/** See voice/stages/moves.ts. */
export function movesOf(e: usize, voice: usize): i32 {
  return <i32>((isLive(e, voice) ? e + v_offset + ((voice * PARAMS) << 3) : e + v_still) >> 3)
}

export function passedIn(e: usize, voice: usize, start: f64): f64 {
  return isLive(e, voice) ? start - load<f64>(e + (voice << 3), v_runStart) : 0
}
