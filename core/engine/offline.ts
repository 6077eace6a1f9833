import { createEngine } from './state'
import type { EngineState } from './state'
import { addChunk, createMemory, LOG_RECORDS, MAX_CHUNKS } from './memory/memory'
import { createLoader } from './memory/loader'
import type { KitLoader } from './memory/loader'
import { createSampleStore } from './memory/sample-store'
import { ACT_RECORDS } from './memory/memory'
import type { MixTap } from './mix/limiter'
import type { GrooveChoice } from './program/compile-groove'
import { EventField, LogField, MAX_PADS, MAX_RAYS, StatusField } from './program/layout'
import { act, render } from './render'
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

/** What the engine decided for a strike. */
export interface StrikeRecord {
  readonly frame: number
  readonly padSlot: number
  readonly velocity: number
  readonly band: number
  readonly turn: number
  readonly strikeNumber: number
  readonly voices: number
  /** The cell of the louder band that blends in, -1 where none does. */
  readonly aboveBand: number
  readonly aboveTurn: number
  /** Which rays sound, by their places on the pad. */
  readonly rays: readonly number[]
  readonly chokedSlots: number[]
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
  const loader = createLoader(memory, store, sampleRateHz, audioOf, { send })
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
  const status = engine.memory.status
  let read = status[StatusField.logCount]
  for (let done = 0; done < frames; done += blockFrames) {
    render(engine, left, right, done, Math.min(blockFrames, frames - done), tap)
    for (; onRecord && read < status[StatusField.logCount]; read++) onRecord(readRecord(engine.memory.log, read))
  }
  return [left, right]
}

/** Strike number `index` of the log, which keeps the last 1024. */
export function readRecord(log: Float64Array, index: number): StrikeRecord {
  const at = (index % LOG_RECORDS) * LogField.length
  const chokedSlots: number[] = []
  for (let slot = 0; slot < MAX_PADS; slot++) if ((log[at + LogField.choked + (slot >> 5)] >>> (slot & 31)) & 1) chokedSlots.push(slot)
  return {
    frame: log[at + LogField.frame],
    padSlot: log[at + LogField.padSlot],
    velocity: log[at + LogField.velocity],
    band: log[at + LogField.band],
    turn: log[at + LogField.turn],
    strikeNumber: log[at + LogField.strikeNumber],
    voices: log[at + LogField.rays],
    aboveBand: log[at + LogField.aboveBand],
    aboveTurn: log[at + LogField.aboveTurn],
    rays: Array.from({ length: MAX_RAYS }, (_, ray) => ray).filter((ray) => (log[at + LogField.rayMask] >>> ray) & 1),
    chokedSlots,
  }
}

/** Events number `from` to the last, as they acted, each with its frame: a score that gives the same samples again. */
export function readActs({ acts, status }: EngineState['memory'], from = 0): Float64Array {
  const width = EventField.length
  const last = status[StatusField.actCount]
  const first = Math.max(from, last - ACT_RECORDS)
  const score = new Float64Array((last - first) * width)
  for (let i = first; i < last; i++) {
    const row = (i % ACT_RECORDS) * width
    score.set(acts.subarray(row, row + width), (i - first) * width)
  }
  return score
}
