import type { Audio } from '../../audio/audio'
import type { MixReading } from '../../audio/mix-meter'
import type { Kit } from '../../kit/kit'
import type { EngineMemory } from '../memory/memory'
import type { ScoreEvent } from '../offline'
import type { GrooveChoice } from '../program/compile-groove'
import type { Standing } from '../standing'

/** How the page starts the playing engine. Without `memory` the engine makes its own and is fed by messages. */
export interface EngineOptions {
  readonly memory?: EngineMemory
  /** What the engine is told before its first frame, where it is fed by messages. */
  readonly told?: readonly ToWorklet[]
  /** A score to play from frame 0, for rendering offline. */
  readonly score?: Float64Array
}

/** From the page to the worklet. All but `pairs`, `stand` and `chunk`, whose samples it carries where they are shared, are used only where memory cannot be. */
export type ToWorklet =
  | { readonly type: 'chunk'; readonly chunk: number; readonly frames: number; readonly samples: Float32Array | undefined }
  | { readonly type: 'samples'; readonly chunk: number; readonly startFrame: number; readonly samples: Float32Array }
  | { readonly type: 'table'; readonly table: number; readonly numbers: Float32Array }
  | { readonly type: 'arena'; readonly offset: number; readonly doubles: Float64Array }
  | { readonly type: 'tables'; readonly directory: Int32Array; readonly programTable: Int32Array }
  | { readonly type: 'events'; readonly events: Float64Array }
  /** By which pair of outputs the bus of each slot leaves, from 1; 0 for none. Used wherever memory lies. */
  | { readonly type: 'pairs'; readonly ofSlot: readonly number[] }
  /** Asks how the engine stands; told between two blocks. */
  | { readonly type: 'stand' }

/** From the worklet to the page, when it was asked. */
export interface Stood {
  readonly type: 'stood'
  readonly standing: Standing
}

/** From the worklet to the page where memory cannot be shared, about every 20 ms. */
export interface WorkletState {
  readonly type: 'state'
  readonly status: Float64Array
  readonly done: Int32Array
  readonly uses: Int32Array
  readonly log: Float64Array
  /** Events that acted since the last report, as a score. */
  readonly acts: Float64Array
  readonly meters: Float64Array
}

export type FromWorklet = Stood | WorkletState

/** What the recorder sends: a piece of what it heard. `firstFrame` counts with the context, so a gap shows. */
export type FromRecorder =
  | { readonly type: 'piece'; readonly firstFrame: number; readonly channels: Float32Array[] }
  | { readonly type: 'flushed'; readonly id: number }

/** What the meter of the mix tells, ten times a second. */
export interface FromMeter {
  readonly type: 'reading'
  readonly reading: MixReading
}

/** Tells the meter to forget what its loudness of all is of. */
export interface ToMeter {
  readonly type: 'begin'
}

/** `port`: send pieces there from now on, past the page. `flush`: send what has gathered, then say so. */
export type ToRecorder = { readonly type: 'port'; readonly port: MessagePort } | { readonly type: 'flush'; readonly id: number }

/** Sounds of a kit for a worker, which keeps them for what is asked later until it is told to forget them. */
interface WithAudio {
  readonly audio: readonly (readonly [hash: string, audio: Audio])[]
  readonly forget?: readonly string[]
}

/** Asks a worker to draw what a kit makes of some events. */
export interface DrawRequest extends WithAudio {
  readonly id: number
  readonly kit: Kit
  readonly events: readonly (Omit<ScoreEvent, 'padSlot'> & { readonly padId: string })[]
  readonly frames: number
  readonly sampleRateHz: number
  readonly blockFrames?: number
}

/** Asks a worker to draw what a groove, or the song, makes of several kits that share their audio, from its beginning. */
export interface DrawGrooveRequest extends WithAudio {
  readonly id: number
  readonly kits: readonly Kit[]
  readonly choice: GrooveChoice
  readonly frames: number
  readonly sampleRateHz: number
}

/** Left and right of each kit, before the limiter. */
export interface DrawGrooveAnswer {
  readonly id: number
  readonly parts: readonly (readonly [left: Float32Array, right: Float32Array])[]
}

export interface DrawAnswer {
  readonly id: number
  readonly left: Float32Array
  readonly right: Float32Array
}
