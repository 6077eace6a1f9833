import { cos, sin } from './math'
import type { EngineMemory } from './memory/memory'
import { EventField, KitField, MAX_PADS, OFFSETS, PATH_WORDS } from './program/layout'

/** Strikes that may sound at once, and room for those that are fading out. */
export const MAX_STRIKES = 128
const STRIKE_POOL = MAX_STRIKES + 64
/** Voices: one clip of one ray of one strike. */
export const VOICE_POOL = 512
export const QUEUE_EVENTS = 2048
/** Longest run of frames rendered in one go. */
export const CHUNK_FRAMES = 128
/** Control-rate work happens every so many frames, counted from the engine's frame 0. */
export const GRID_FRAMES = 16
/** A frame that never comes. */
export const NEVER = 9007199254740991

const f64 = () => new Float64Array(VOICE_POOL)
const i32 = () => new Int32Array(VOICE_POOL)

function createVoices() {
  return {
    active: i32(), strike: i32(), program: i32(), chunk: i32(), left: i32(), right: i32(),
    frames: f64(), position: f64(), startFrame: f64(), endFrame: f64(),
    gainLeft: f64(), gainRight: f64(), meter: i32(),
    baseRate: f64(), baseCents: f64(), pitchEnv: i32(), ampEnv: i32(), timeScale: f64(),
    cellStart: f64(), cellEnd: f64(), cellRate: f64(), cellRateEnd: f64(), cellRateSlope: f64(),
    releaseFrame: f64(), releaseLevel: f64(), holds: i32(), loops: i32(),
    fadeStart: f64(), fadeFrames: f64(),
    filterType: i32(), cutoffHz: f64(), damping: f64(), filterEnv: i32(), filterEnvCents: f64(),
    filterCell: f64(), a1: f64(), a2: f64(), a3: f64(), a1Step: f64(), a2Step: f64(), a3Step: f64(),
    leftOne: f64(), leftTwo: f64(), rightOne: f64(), rightTwo: f64(),
  } // prettier-ignore
}
export type Voices = ReturnType<typeof createVoices>

function createStrikes() {
  const ints = () => new Int32Array(STRIKE_POOL)
  return {
    active: ints(), padSlot: ints(), struckSlot: ints(), voices: ints(), velocity: ints(), released: ints(), stopping: ints(),
    group: new Float64Array(STRIKE_POOL), limit: new Float64Array(STRIKE_POOL), startFrame: new Float64Array(STRIKE_POOL), key: new Float64Array(STRIKE_POOL),
    order: new Float64Array(STRIKE_POOL),
  } // prettier-ignore
}
export type Strikes = ReturnType<typeof createStrikes>

/** The strike that is being decided: set by its event, and by what is decided first, so that rules need not hand it on. */
export interface StrikeNow {
  padSlot: number
  velocity: number
  /** -1 where no note struck it. */
  note: number
  inputFrame: number
  key: number
  /** The pad that the finger struck: what it lets go is let go of. */
  struckSlot: number
  /** Level against a strike of its own, a gain; and whether it strikes others along. */
  gain: number
  passOn: number
  /** Which strike of its pad it is, counted from 0. */
  padStrike: number
  /** The program of its pad: its slot, and where it begins in the arena. */
  programSlot: number
  program: number
  /** Its place among the strikes that sound, and its record in the log. */
  slot: number
  record: number
}

/** Everything the engine changes while it runs: numbers and typed arrays, all made before the first frame. */
export interface EngineState {
  readonly memory: EngineMemory
  readonly sampleRateHz: number
  frame: number
  readonly voices: Voices
  voiceTop: number
  readonly strikes: Strikes
  readonly now: StrikeNow
  strikeOrder: number
  /** Strikes so far of each pad, and of each band of each pad (row = pad, 128 a row). */
  readonly padCount: Float64Array
  readonly bandCount: Float64Array
  /** The strike of each pad from which its turns are counted, and the frame of its last one. */
  readonly countFrom: Float64Array
  readonly lastFrame: Float64Array
  /** Live and scheduled events, in order of frame. */
  readonly queue: Float64Array
  queueLength: number
  /** A score given whole before rendering, in order of frame. */
  score: Float64Array
  scoreCursor: number
  kitGain: number
  limiterGain: number
  readonly limiterRelease: number
  readonly stopFadeFrames: number
  readonly mixLeft: Float64Array
  readonly mixRight: Float64Array
  readonly scratchLeft: Float64Array
  readonly scratchRight: Float64Array
  readonly turnScratch: Int32Array
  readonly offsets: Float64Array
  /** What controllers stand at, 0..127. */
  readonly controls: Float64Array
  /** Strikes so far of pads that take turns, counted at the first of them. */
  readonly takenTurns: Float64Array
  /** Through which pads the strike that is being decided came, and the event it makes of itself. */
  readonly path: Float64Array
  readonly made: Float64Array
}

export function createEngine(memory: EngineMemory, sampleRateHz: number): EngineState {
  return {
    memory,
    sampleRateHz,
    frame: 0,
    voices: createVoices(),
    voiceTop: 0,
    strikes: createStrikes(),
    now: {
      padSlot: 0,
      velocity: 0,
      note: -1,
      inputFrame: 0,
      key: 0,
      struckSlot: 0,
      gain: 1,
      passOn: 1,
      padStrike: 0,
      programSlot: 0,
      program: 0,
      slot: 0,
      record: 0,
    },
    strikeOrder: 0,
    padCount: new Float64Array(MAX_PADS),
    bandCount: new Float64Array(MAX_PADS * 128),
    countFrom: new Float64Array(MAX_PADS),
    lastFrame: new Float64Array(MAX_PADS).fill(NEVER),
    queue: new Float64Array(QUEUE_EVENTS * EventField.length),
    queueLength: 0,
    score: new Float64Array(0),
    scoreCursor: 0,
    kitGain: memory.kit[KitField.gain],
    limiterGain: 1,
    limiterRelease: 1 / (0.08 * sampleRateHz),
    stopFadeFrames: Math.floor(0.004 * sampleRateHz + 0.5),
    mixLeft: new Float64Array(CHUNK_FRAMES),
    mixRight: new Float64Array(CHUNK_FRAMES),
    scratchLeft: new Float64Array(CHUNK_FRAMES),
    scratchRight: new Float64Array(CHUNK_FRAMES),
    turnScratch: new Int32Array(128),
    offsets: new Float64Array(OFFSETS),
    controls: new Float64Array(128),
    takenTurns: new Float64Array(MAX_PADS),
    path: new Float64Array(PATH_WORDS),
    made: new Float64Array(EventField.length),
  }
}

/** Tangent, for filter coefficients; `x` in 0..1.5 radians. */
export function tan(x: number): number {
  return sin(x) / cos(x)
}
