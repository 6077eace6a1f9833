import {
  CrushField,
  CrushValue,
  DriveField,
  DriveValue,
  ParamCode,
  TransientField,
  TransientValue,
  UnitField,
  WidthValue,
  WorkField,
} from '../../../program/layout'
import { get, put, toPlace } from '../../../voice/both/cells'
import { crush } from '../../../voice/both/crush'
import { drive, DRIVE_FRAMES, steadyKept } from '../../../voice/both/drive'
import { shapeTransient } from '../../../voice/both/transient'
import { bandOf, designCore, FLAT, lowOf, runSection, SECTION_DOUBLES, valueAt } from './parts'

/** What buses have as voices have it: the same sources do it, with nothing else that moves them. */

/** Where nothing is that moves them. */
function stillOf(work: i32): i32 {
  return toPlace(get(work + WorkField.still))
}

/** Drive comes DRIVE_FRAMES later; what goes beside it is held back by as much. */
export function driveBus(unit: i32, work: i32, frame: f64, at: f64, count: i32): void {
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const row = unit + UnitField.state0
  const held = row + DriveField.length
  put(row + DriveField.kind, get(unit + UnitField.now0 + DriveValue.kind))
  put(row + DriveField.amountDb, get(unit + UnitField.next0 + DriveValue.driveDb))
  put(row + DriveField.levelDb, get(unit + UnitField.next0 + DriveValue.levelDb))
  put(row + DriveField.hasLevel, 1)
  put(row + DriveField.code, ParamCode.driveDb)
  put(row + DriveField.keep, steadyKept(get(work + WorkField.rateHz)))
  for (let i = 0; i < count; i++) {
    put(held + DRIVE_FRAMES + i, get(left + i))
    put(held + 3 * DRIVE_FRAMES + i, get(right + i))
  }
  drive(row, toPlace(get(work + WorkField.driveTable)), stillOf(work), frame, 0, left, right, count)
  for (let i = 0; i < count; i++) {
    const mix = valueAt(unit, DriveValue.mix, at + i)
    if (mix === 1) continue
    put(left + i, get(held + i) + mix * (get(left + i) - get(held + i)))
    const beside = get(held + 2 * DRIVE_FRAMES + i)
    put(right + i, beside + mix * (get(right + i) - beside))
  }
  for (let i = 0; i < DRIVE_FRAMES; i++) {
    put(held + i, get(held + i + count))
    put(held + 2 * DRIVE_FRAMES + i, get(held + 2 * DRIVE_FRAMES + i + count))
  }
}

export function crushBus(unit: i32, work: i32, frame: f64, count: i32): void {
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const row = unit + UnitField.state0
  put(row + CrushField.bits, get(unit + UnitField.next0 + CrushValue.bits))
  put(row + CrushField.rateHz, get(unit + UnitField.next0 + CrushValue.rateHz))
  put(row + CrushField.mix, get(unit + UnitField.next0 + CrushValue.mix))
  crush(row, stillOf(work), frame, 0, left, right, count, get(work + WorkField.rateHz))
}

export function shapeBus(unit: i32, work: i32, frame: f64, count: i32): void {
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const row = unit + UnitField.state0
  put(row + TransientField.attackDb, get(unit + UnitField.next0 + TransientValue.attackDb))
  put(row + TransientField.tailDb, get(unit + UnitField.next0 + TransientValue.tailDb))
  shapeTransient(row, stillOf(work), frame, 0, left, right, count, get(work + WorkField.rateHz))
}

const CORE: i32 = SECTION_DOUBLES

/** Width as of a voice, and one channel below a frequency where that is asked for: what sets the channels apart has no bass then. */
export function widenBus(unit: i32, left: i32, right: i32, at: f64, count: i32): void {
  const row = unit + UnitField.state0
  const mono = valueAt(unit, WidthValue.monoBelow, at)
  if (mono > 0) designCore(row + CORE, mono, FLAT)
  for (let i = 0; i < count; i++) {
    const share = valueAt(unit, WidthValue.width, at + i)
    if (share === 1 && mono === 0) continue
    const middle = 0.5 * (get(left + i) + get(right + i))
    let side = 0.5 * (get(left + i) - get(right + i)) * share
    if (mono > 0) {
      runSection(row + CORE, row, side)
      side = side - FLAT * bandOf(row) - lowOf(row)
    }
    put(left + i, middle + side)
    put(right + i, middle - side)
  }
}
