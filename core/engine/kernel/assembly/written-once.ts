import {
  DRIVES, driveTable, positions, RayField_waitFrames, scratchLeft, scratchRight, SetUp_arena, SetUp_sampleRateHz, v_crushes, v_drives, v_ray, v_waits, v_edges, v_startFrame, v_transients, v_width,
} from './constants' // prettier-ignore
import { CrushField, DriveField, WaitField, EdgeField, TransientField } from '../../program/layout'
import { crush } from '../../voice/both/crush'
import { drive, DRIVE_FRAMES } from '../../voice/both/drive'
import { fadeEdges } from '../../voice/both/edges'
import { shapeTransient } from '../../voice/both/transient'
import { wait } from '../../voice/both/wait'
import { widenVoice } from '../../voice/both/width'
import { movesOf, passedIn } from './moves'

/** Fewer bits and a lower rate over a stretch of a voice; see voice/both/crush.ts. */
export function applyCrush(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const row = <i32>((e + v_crushes) >> 3) + <i32>voice * CrushField.length
  const time = start - load<f64>(e + (voice << 3), v_startFrame)
  const left = <i32>((e + scratchLeft) >> 3)
  const right = stereo ? <i32>((e + scratchRight) >> 3) : 0
  const passed = passedIn(e, voice, start)
  crush(row, movesOf(e, voice), time, passed, left, right, count, load<f64>(e, SetUp_sampleRateHz))
}

/** Attack and tail by the hit's own curve over a stretch of a voice; see voice/both/transient.ts. */
export function applyTransient(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const row = <i32>((e + v_transients) >> 3) + <i32>voice * TransientField.length
  const time = start - load<f64>(e + (voice << 3), v_startFrame)
  const left = <i32>((e + scratchLeft) >> 3)
  const right = stereo ? <i32>((e + scratchRight) >> 3) : 0
  const passed = passedIn(e, voice, start)
  shapeTransient(row, movesOf(e, voice), time, passed, left, right, count, load<f64>(e, SetUp_sampleRateHz))
}

/** The fades at both ends of what it plays of its clip; see voice/both/edges.ts. */
export function applyEdges(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const row = <i32>((e + v_edges) >> 3) + <i32>voice * EdgeField.length
  const time = start - load<f64>(e + (voice << 3), v_startFrame)
  fadeEdges(row, <i32>((e + positions) >> 3), time, <i32>((e + scratchLeft) >> 3), stereo ? <i32>((e + scratchRight) >> 3) : 0, count)
}

/** How far apart its channels stand over a stretch of a voice. */
export function applyWidth(e: usize, voice: usize, start: f64, count: i32): void {
  const width = load<f64>(e + (voice << 3), v_width)
  const left = <i32>((e + scratchLeft) >> 3)
  const right = <i32>((e + scratchRight) >> 3)
  widenVoice(width, movesOf(e, voice), passedIn(e, voice, start), left, right, count)
}

/** Drive before the filters (`which` 0) or after them (1), by which the voice's time is set back; see voice/both/drive.ts. */
export function applyDrive(e: usize, voice: usize, which: i32, start: f64, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  const row = <i32>((e + v_drives) >> 3) + (<i32>voice * <i32>DRIVES + which) * DriveField.length
  const time = start - load<f64>(d, v_startFrame)
  const left = <i32>((e + scratchLeft) >> 3)
  const right = stereo ? <i32>((e + scratchRight) >> 3) : 0
  const table = <i32>((e + driveTable) >> 3)
  drive(row, table, movesOf(e, voice), time, passedIn(e, voice, start), left, right, count)
  store<f64>(d, load<f64>(d, v_startFrame) + DRIVE_FRAMES, v_startFrame)
}

/** Holds back a voice that is read further ahead than it needs, and sets its time back by as much. */
export function applyWait(e: usize, voice: usize, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  const ray = <usize>load<f64>(e, SetUp_arena) + ((<usize>load<i32>(e + (voice << 2), v_ray)) << 3)
  const frames = load<f64>(ray, RayField_waitFrames << 3)
  const row = <i32>((e + v_waits) >> 3) + <i32>voice * WaitField.length
  wait(row, <i32>frames, <i32>((e + scratchLeft) >> 3), stereo ? <i32>((e + scratchRight) >> 3) : 0, count)
  store<f64>(d, load<f64>(d, v_startFrame) + frames, v_startFrame)
}
