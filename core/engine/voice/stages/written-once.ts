import { CrushField, DriveField, DRIVES, EdgeField, RayField, TransientField, WaitField } from '../../program/layout'
import type { EngineState } from '../../state'
import { useMemory } from '../both/cells'
import { crush } from '../both/crush'
import { drive, DRIVE_FRAMES } from '../both/drive'
import { fadeEdges } from '../both/edges'
import { shapeTransient } from '../both/transient'
import { wait } from '../both/wait'
import { widenVoice } from '../both/width'
import { movesOf, passedIn } from './moves'

/** Fewer bits and a lower rate over a stretch of a voice; see both/crush.ts. */
export function applyCrush(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { voices: v, memory, scratchLeft, scratchRight, sampleRateHz } = engine
  const row = v.crushes.byteOffset / 8 + voice * CrushField.length
  const right = stereo ? scratchRight.byteOffset / 8 : 0
  useMemory(memory.everything)
  crush(row, movesOf(engine, voice), start - v.startFrame[voice], passedIn(engine, voice, start), scratchLeft.byteOffset / 8, right, count, sampleRateHz) // prettier-ignore
}

/** Attack and tail by the hit's own curve over a stretch of a voice; see both/transient.ts. */
export function applyTransient(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { voices: v, memory, scratchLeft, scratchRight, sampleRateHz } = engine
  const row = v.transients.byteOffset / 8 + voice * TransientField.length
  const right = stereo ? scratchRight.byteOffset / 8 : 0
  useMemory(memory.everything)
  shapeTransient(row, movesOf(engine, voice), start - v.startFrame[voice], passedIn(engine, voice, start), scratchLeft.byteOffset / 8, right, count, sampleRateHz) // prettier-ignore
}

/** The fades at both ends of what it plays of its clip; see both/edges.ts. */
export function applyEdges(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { voices: v, memory, positions, scratchLeft, scratchRight } = engine
  const row = v.edges.byteOffset / 8 + voice * EdgeField.length
  const right = stereo ? scratchRight.byteOffset / 8 : 0
  useMemory(memory.everything)
  fadeEdges(row, positions.byteOffset / 8, start - v.startFrame[voice], scratchLeft.byteOffset / 8, right, count)
}

/** How far apart its channels stand over a stretch of a voice. */
export function applyWidth(engine: EngineState, voice: number, start: number, count: number): void {
  const { voices: v, memory, scratchLeft, scratchRight } = engine
  const [left, right] = [scratchLeft.byteOffset / 8, scratchRight.byteOffset / 8]
  useMemory(memory.everything)
  widenVoice(v.width[voice], movesOf(engine, voice), passedIn(engine, voice, start), left, right, count)
}

/** Drive before the filters (`which` 0) or after them (1) over a stretch of a voice, whose time is set back by it; see both/drive.ts. */
export function applyDrive(engine: EngineState, voice: number, which: number, start: number, count: number, stereo: boolean): void {
  const { voices: v, memory, driveTable, scratchLeft, scratchRight } = engine
  const row = v.drives.byteOffset / 8 + (voice * DRIVES + which) * DriveField.length
  const right = stereo ? scratchRight.byteOffset / 8 : 0
  const time = start - v.startFrame[voice]
  useMemory(memory.everything)
  drive(
    row,
    driveTable.byteOffset / 8,
    movesOf(engine, voice),
    time,
    passedIn(engine, voice, start),
    scratchLeft.byteOffset / 8,
    right,
    count,
  )
  v.startFrame[voice] += DRIVE_FRAMES
}

/** Holds back a voice of a pad that is read further ahead than it needs, and sets its time back by as much. */
export function applyWait(engine: EngineState, voice: number, count: number, stereo: boolean): void {
  const { voices: v, memory, scratchLeft, scratchRight } = engine
  const frames = memory.arena[v.ray[voice] + RayField.waitFrames]
  useMemory(memory.everything)
  wait(
    v.waits.byteOffset / 8 + voice * WaitField.length,
    frames,
    scratchLeft.byteOffset / 8,
    stereo ? scratchRight.byteOffset / 8 : 0,
    count,
  )
  v.startFrame[voice] += frames
}
