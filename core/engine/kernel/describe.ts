import { createMemory } from '../memory/memory'
import { MIX_FROM, READING_PLACES } from '../memory/reading-tables'
import { driveCodes, effectCodes, filterCodes, resonatorCodes, reverbCodes, stageCodes } from '../program/codes'
import {
  CompressorValue,
  CrushField,
  CrushValue,
  DriveField,
  DriveValue,
  EchoValue,
  EqualiserValue,
  GateValue,
  LimiterValue,
  RangeValue,
  ResonatorValue,
  ReverbValue,
  RoomValue,
  TransientValue,
  UnitField,
  WorkField,
  MovesField,
  WidthValue,
  DRIVES,
  DriveSide,
  EdgeField,
  EnvelopeField,
  FilterField,
  FILTERS,
  GUARD_FRAMES,
  MOST_SENDS,
  ParamCode,
  PARAMS,
  PointField,
  RayField,
  READING_TABLES,
  FilterSection,
  SendField,
  SetUp,
  TransientField,
  WaitField,
} from '../program/layout'
import { createEngine } from '../state'
import { CHUNK_FRAMES, GRID_FRAMES, LONG_CELL_FRAMES, NEVER } from '../time'
import { PLACES_PER_CENT, pitchBounds } from '../voice/pitch-cells'
import { RING_FADES } from '../voice/render-voice'
import { sourceKinds } from '../voice/sources'

/** Lists of places and codes that are said by name in sources that both compilers read, as whole numbers. */
export const kernelEnums = {
  CrushField,
  EdgeField,
  EnvelopeField,
  FilterField,
  ParamCode,
  PointField,
  FilterSection,
  TransientField,
  WaitField,
  DriveField,
  DriveSide,
  driveCodes,
  filterCodes,
  effectCodes,
  reverbCodes,
  resonatorCodes,
  UnitField,
  WorkField,
  MovesField,
  EqualiserValue,
  CompressorValue,
  RangeValue,
  GateValue,
  LimiterValue,
  DriveValue,
  CrushValue,
  TransientValue,
  WidthValue,
  EchoValue,
  ReverbValue,
  RoomValue,
  ResonatorValue,
} as const

/**
 * All numbers by which the kernel finds things, by name: fields, codes, and how many bytes behind an engine's first each
 * of its arrays begins. The kernel is built with them, so that a layout is said once.
 */
export function kernelConstants(): Record<string, number> {
  const engine = createEngine(createMemory(false), 48000, true)
  const constants: Record<string, number> = {
    CHUNK_FRAMES,
    DRIVES,
    FILTERS,
    GRID_FRAMES,
    LONG_CELL_FRAMES,
    GUARD_FRAMES,
    MIX_FROM,
    MOST_SENDS,
    NEVER,
    PARAMS,
    PLACES_PER_CENT,
    READING_PLACES,
    READING_TABLES,
    RING_FADES,
    ...pitchBounds,
  }
  const say = (prefix: string, values: object) => {
    for (const [name, value] of Object.entries(values)) constants[`${prefix}_${name}`] = value as number
  }
  say('EnvelopeField', EnvelopeField)
  say('PointField', PointField)
  say('RayField', RayField)
  say('SendField', SendField)
  say('ParamCode', ParamCode)
  say('filterCodes', filterCodes)
  say('stageCodes', stageCodes)
  say('SourceKind', sourceKinds)
  for (const [name, place] of Object.entries(SetUp)) constants[`SetUp_${name}`] = place * 8
  const from = engine.setUp.byteOffset
  const bytes = (array: { byteOffset: number }) => array.byteOffset - from
  for (const [name, array] of Object.entries(engine.voices)) constants[`v_${name}`] = bytes(array)
  const { left, right, places, fed, balance, isMoving, isKnown } = engine.mix
  const mix = { left: left[0], right: right[0], places: places[0], fed, balance, isMoving, isKnown }
  for (const [name, array] of Object.entries(mix)) constants[`m_${name}`] = bytes(array)
  const { positions, scratchLeft, scratchRight, gainsLeft, gainsRight, driveTable } = engine
  for (const [name, array] of Object.entries({ positions, scratchLeft, scratchRight, gainsLeft, gainsRight, driveTable }))
    constants[name] = bytes(array)
  return constants
}
