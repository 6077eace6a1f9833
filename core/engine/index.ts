export { chance, hashId, Purpose } from './strike/chance'
export { clipAudio, clipKey, clipSamples } from './memory/clip-region'
export { repairsDb, usualRepairs } from './memory/repair-sections'
export { compileGroove } from './program/compile-groove'
export type { GrooveChoice } from './program/compile-groove'
export { compilePad } from './program/compile-pad'
export { bendToK } from './program/context'
export { bent } from './voice/envelope'
export { createLoader } from './memory/loader'
export type { KitLoader, LoaderEvents } from './memory/loader'
export { LIMITER_CEILING } from './mix/limiter'
export { masterDelayFrames } from './program/effects/look-ahead'
export { centsToRatio, cos, dbToGain, exp2, gainToDb, log2, sin, tanh } from './math'
export {
  ACT_RECORDS,
  addChunk,
  BUS_METERS,
  createMemory,
  doneOf,
  LOG_RECORDS,
  MAX_CHUNKS,
  RING_EVENTS,
  UNIT_METERS,
  writeRing,
} from './memory/memory'
export type { EngineMemory } from './memory/memory'
export { readingTable } from './memory/reading-tables'
export { readActs } from './acts'
export { createOffline, renderOffline, toScore } from './offline'
export type { Listening, Offline, ScoreEvent } from './offline'
export { readRecord } from './strike-record'
export type { CameBy, FullLimit, StrikeRecord } from './strike-record'
export { controlNumbers, EventType, faderCodes } from './program/codes'
export { keptDriveLevelDb } from './kept-level'
export { DoneField, EventField, MAX_BUSES, MAX_RAYS, MOST_PAIRS, StatusField } from './program/layout'
export { addEvent } from './events'
export { act, render } from './render'
export { CHUNK_SAMPLES, createSampleStore } from './memory/sample-store'
export type { ChunkBacking, Region, SampleStore } from './memory/sample-store'
export { stand, standingOf } from './standing'
export type { Standing } from './standing'
export { createEngine } from './state'
export type { EngineState } from './state'
export type { MixTap } from './mix/limiter'
export type { Stem } from './mix/sum-buses'
export { withWorked, workRecipe } from './memory/worked-audio'
