import { createEngine } from './state'
import type { EngineState } from './state'
import { addChunk, createMemory, doneOf, MAX_CHUNKS } from './memory/memory'
import { createLoader } from './memory/loader'
import type { KitLoader } from './memory/loader'
import { createSampleStore } from './memory/sample-store'
import { withWorked } from './memory/worked-audio'
import type { MixTap } from './mix/limiter'
import type { GrooveChoice } from './program/compile-groove'
import { DoneField, EventField } from './program/layout'
import { act, render } from './render'
import { readRecord } from './strike-record'
import type { StrikeRecord } from './strike-record'
import type { Audio } from '../audio/audio'
import type { AudioHash } from '../kit/ids'
import type { Kit } from '../kit/kit'

/**
 * One event of a performance: a strike or let-go of a pad, a control (its number in `note`, where it is moved to in
 * `velocity`), the beginning or end of the groove. Frames are the engine's.
 */
export interface ScoreEvent {
  readonly frame: number
  readonly type: number
  readonly padSlot: number
  readonly velocity?: number
  readonly note?: number
  readonly key?: number
}

export interface Offline {
  readonly engine: EngineState
  readonly loader: KitLoader
}

/** An engine with memory of its own, for drawing, bouncing and tests. `isPlain` keeps the kernel out of it. */
export function createOffline(
  kit: Kit,
  sampleRateHz: number,
  audioOf: (audio: AudioHash) => Audio | undefined,
  seed = kit.seed,
  choice?: GrooveChoice,
  isPlain = false,
): Offline {
  const memory = createMemory(false)
  const store = createSampleStore({ createChunk: (chunk, frames) => addChunk(memory, chunk, frames), written: () => undefined }, MAX_CHUNKS)
  const engine = createEngine(memory, sampleRateHz, isPlain)
  const send = (event: Float64Array) => {
    act(engine, event)
    return true
  }
  const loader = createLoader(memory, store, sampleRateHz, withWorked(audioOf), { send })
  loader.load({ ...kit, seed }, choice)
  return { engine, loader }
}

/** Lays events out as the engine reads them, in order of frame; events of one frame keep their order. */
export function toScore(events: readonly ScoreEvent[]): Float64Array {
  const sorted = [...events].sort((a, b) => a.frame - b.frame)
  const score = new Float64Array(sorted.length * EventField.length)
  sorted.forEach((event, i) => {
    score.set(
      [event.frame, event.type, event.padSlot, event.velocity ?? 0, event.note ?? -1, event.frame, event.key ?? 0],
      i * EventField.length,
    )
  })
  return score
}

/** What to be told of while rendering: each strike as it is decided, and the mix before the limiter with its stems. */
export interface Listening {
  readonly onRecord?: (record: StrikeRecord) => void
  readonly tap?: MixTap
}

/** Renders `frames` frames in blocks. */
export function renderOffline(
  engine: EngineState,
  score: Float64Array,
  frames: number,
  blockFrames = 4096,
  listening: Listening | Listening['onRecord'] = {},
): [Float32Array, Float32Array] {
  const { onRecord, tap }: Listening = typeof listening === 'function' ? { onRecord: listening } : listening
  const left = new Float32Array(frames)
  const right = new Float32Array(frames)
  engine.score = score
  engine.scoreCursor = 0
  const { memory } = engine
  let read = doneOf(memory, DoneField.strikes)
  for (let done = 0; done < frames; done += blockFrames) {
    render(engine, left, right, done, Math.min(blockFrames, frames - done), tap)
    for (; onRecord && read < doneOf(memory, DoneField.strikes); read++) onRecord(readRecord(memory.log, read))
  }
  return [left, right]
}
