import {
  RayField_stageCount, RayField_stages, SetUp_arena, SetUp_directory, stageCodes_crush, stageCodes_drive, stageCodes_driveAfter, stageCodes_edges,
  stageCodes_filter1, stageCodes_filter2, stageCodes_level, stageCodes_lowCut, stageCodes_transient, stageCodes_wait, stageCodes_width, v_program, v_ray,
  v_startFrame,
} from './constants' // prettier-ignore
import { filter } from './filter'
import { applyLevel } from './level'
import { applyCrush, applyDrive, applyEdges, applyTransient, applyWait, applyWidth } from './written-once'

/** What its ray's program says that a voice passes, in its order; a stage that holds back sets the voice's time back by as much. */
export function runStages(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const passed = stageCount(e, voice)
  for (let i = 0; i < passed; i++) {
    if (start < load<f64>(e + (voice << 3), v_startFrame)) return // it has not begun for this stage, nor for what follows
    runStage(e, voice, stageAt(e, voice, i), start, count, stereo)
  }
}

/** How many stages a voice passes. */
export function stageCount(e: usize, voice: usize): i32 {
  return <i32>load<f64>(rayOf(e, voice), RayField_stageCount << 3)
}

/** The code of a voice's stage by its number, from 0. */
export function stageAt(e: usize, voice: usize, number: i32): i32 {
  const program = load<i32>(<usize>load<f64>(e, SetUp_directory) + ((<usize>load<i32>(e + (voice << 2), v_program)) << 2))
  const at = <usize>(<f64>program + load<f64>(rayOf(e, voice), RayField_stages << 3))
  return <i32>load<f64>(<usize>load<f64>(e, SetUp_arena) + ((at + <usize>number) << 3))
}

function rayOf(e: usize, voice: usize): usize {
  return <usize>load<f64>(e, SetUp_arena) + ((<usize>load<i32>(e + (voice << 2), v_ray)) << 3)
}

function runStage(e: usize, voice: usize, code: i32, start: f64, count: i32, stereo: bool): void {
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
