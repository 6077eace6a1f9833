import { addEvent, nextQueued, takeEvent } from './events'
import { beginGroove, leadGroove, nextGrooveFrame, repeatBead, runGroove, stopGroove, tellGroove } from './groove/play'
import { ACT_RECORDS, doneOf, RING_EVENTS, sayDone } from './memory/memory'
import { mixDown } from './mix/limiter'
import type { MixTap } from './mix/limiter'
import { framesToMove, moveMix } from './mix/live-buses'
import { movePlaces } from './mix/mix-state'
import { clearBuses, sumBuses } from './mix/sum-buses'
import { moveFader, takeKit } from './mix/take-kit'
import { EventType } from './program/codes'
import { DoneField, EventField, MASTER, MAX_PADS, StatusField } from './program/layout'
import { CHUNK_FRAMES, NEVER } from './time'
import type { EngineState } from './state'
import { beginStrike, goOnAlong, moveControl } from './strike/links'
import { endRolling, roll, silenceRolling } from './strike/rolling'
import { release, stopPad } from './strike/stops'
import { renderVoices } from './voice/render-voice'

const WIDTH = EventField.length

/**
 * Renders `count` frames into both outputs. Every event acts on its very frame, and the samples are the same however
 * the frames are divided into calls. `tap` takes the mix before the limiter. Audio thread: allocates nothing.
 */
export function render(
  engine: EngineState,
  outLeft: Float32Array,
  outRight: Float32Array,
  offset: number,
  count: number,
  tap?: MixTap,
): void {
  drainRing(engine)
  for (let done = 0; done < count;) {
    runDueEvents(engine)
    const next = nextEventFrame(engine) - engine.frame
    const run = Math.min(count - done, CHUNK_FRAMES, next, framesToMove(engine))
    renderRun(engine, outLeft, outRight, offset + done, run, tap)
    done += run
  }
  engine.memory.status[StatusField.frame] = engine.frame
  tellGroove(engine)
}

function renderRun(
  engine: EngineState,
  outLeft: Float32Array,
  outRight: Float32Array,
  offset: number,
  count: number,
  tap: MixTap | undefined,
): void {
  const { mix } = engine
  mix.left[MASTER].fill(0, 0, count)
  mix.right[MASTER].fill(0, 0, count)
  moveMix(engine, count)
  movePlaces(mix, count)
  renderVoices(engine, count)
  sumBuses(engine, count, tap?.stems, offset, tap?.pairs)
  mixDown(engine, outLeft, outRight, offset, count, tap)
  clearBuses(engine, count)
  engine.frame += count
}

/** Takes what the page has written since the last call. "As soon as possible" becomes the frame about to be rendered. */
function drainRing(engine: EngineState): void {
  const { ring, ringHead } = engine.memory
  let read = ringHead[1]
  const written = Atomics.load(ringHead, 0)
  for (; read !== written; read = (read + 1) | 0) {
    const at = (read & (RING_EVENTS - 1)) * WIDTH
    // A kit is taken before anything else acts on this frame.
    if (ring[at + EventField.type] === EventType.kit) runEvent(engine, ring, at)
    else addEvent(engine, ring, at)
  }
  Atomics.store(ringHead, 1, read)
}

function nextEventFrame(engine: EngineState): number {
  const scored = engine.scoreCursor < engine.score.length ? engine.score[engine.scoreCursor] : NEVER
  return Math.min(scored, nextQueued(engine.queue, NEVER), nextGrooveFrame(engine))
}

/** Everything that acts on this frame: the score, then what is in the queue, then the groove, until nothing is left. */
function runDueEvents(engine: EngineState): void {
  const { frame, score } = engine
  while (engine.scoreCursor < score.length && score[engine.scoreCursor] <= frame) {
    runEvent(engine, score, engine.scoreCursor)
    engine.scoreCursor += WIDTH
  }
  for (;;) {
    while (nextQueued(engine.queue, NEVER) <= frame) {
      takeEvent(engine.queue, engine.event)
      runEvent(engine, engine.event, 0)
    }
    if (nextGrooveFrame(engine) > frame) return
    runGroove(engine)
  }
}

/** What a strike has yet to strike along is let go with it, as soon as it sounds. */
function releaseAlong(engine: EngineState, struckSlot: number, key: number): void {
  const { queue, made } = engine
  const { rows, found } = queue
  let count = 0
  // Looked for first and added then: adding moves what is in the heap.
  for (let i = 0; i < queue.length; i++) {
    const at = queue.heap[i] * WIDTH
    if (rows[at + EventField.type] !== EventType.along || rows[at + EventField.struckSlot] !== struckSlot) continue
    if (key === 0 || rows[at + EventField.key] === key) found[count++] = at
  }
  for (let i = 0; i < count; i++) {
    made.fill(0)
    made[EventField.frame] = rows[found[i]]
    made[EventField.type] = EventType.release
    made[EventField.padSlot] = struckSlot
    made[EventField.key] = rows[found[i] + EventField.key]
    made[EventField.path0] = MADE
    addEvent(engine, made, 0)
  }
}

/** Marks events that the engine made itself: they come again by themselves when a performance is rendered again. */
const MADE = 1

/** Keeps an event from outside as it acted, with its frame. */
function keepAct(engine: EngineState, events: Float64Array, at: number): void {
  const type = events[at + EventField.type]
  if (
    type === EventType.along ||
    type === EventType.bead ||
    type === EventType.roll ||
    type === 0 ||
    (type === EventType.release && events[at + EventField.path0] === MADE)
  )
    return
  const { memory } = engine
  const { acts } = memory
  const count = doneOf(memory, DoneField.acts)
  const row = (count % ACT_RECORDS) * WIDTH
  for (let i = 0; i < WIDTH; i++) acts[row + i] = events[at + i]
  acts[row + EventField.frame] = engine.frame
  sayDone(memory, DoneField.acts, count + 1)
}

/** Lets an event act now, on the frame that is about to be rendered; for hosts that hold the engine in their hands. */
export function act(engine: EngineState, event: Float64Array): void {
  runEvent(engine, event, 0)
}

function runEvent(engine: EngineState, events: Float64Array, at: number): void {
  const padSlot = events[at + EventField.padSlot]
  const key = events[at + EventField.key]
  const note = events[at + EventField.note]
  const value = events[at + EventField.velocity]
  keepAct(engine, events, at)
  switch (events[at + EventField.type]) {
    case EventType.strike:
      if (padSlot >= 0 && padSlot < MAX_PADS) beginStrike(engine, events, at)
      break
    case EventType.along:
      goOnAlong(engine, events, at)
      break
    case EventType.roll:
      roll(engine, events, at)
      break
    case EventType.bead:
      repeatBead(engine, events)
      break
    case EventType.controller:
      moveControl(engine, note, value)
      break
    case EventType.release:
      if (!(padSlot >= 0 && padSlot < MAX_PADS)) break
      release(engine, padSlot, key)
      releaseAlong(engine, padSlot, key)
      endRolling(engine, padSlot, key)
      break
    case EventType.stopAll:
      stopPad(engine, -1)
      silenceRolling(engine, -1)
      break
    case EventType.stopPad:
      stopPad(engine, padSlot)
      silenceRolling(engine, padSlot)
      break
    case EventType.kit:
      takeKit(engine, note)
      break
    case EventType.fader:
      moveFader(engine, padSlot, note, value)
      break
    case EventType.groove:
      beginGroove(engine, value)
      break
    case EventType.leadGroove:
      leadGroove(engine, value, key)
      break
    case EventType.stopGroove:
      stopGroove(engine)
      break
  }
}
