import { mixDown } from './mix/limiter'
import type { MixTap } from './mix/limiter'
import { RING_EVENTS } from './memory/memory'
import { addEvent } from './events'
import { EventField, EventType, MAX_PADS, StatusField } from './program/layout'
import { CHUNK_FRAMES, NEVER } from './state'
import type { EngineState } from './state'
import { release, stopPad } from './strike/stops'
import { beginStrike, goOnAlong, moveController } from './strike/links'
import { beginGroove } from './strike/strike'
import { renderVoice } from './voice/render-voice'

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
    const run = Math.min(count - done, CHUNK_FRAMES, next)
    renderRun(engine, outLeft, outRight, offset + done, run, tap)
    done += run
  }
  engine.memory.status[StatusField.frame] = engine.frame
}

function renderRun(
  engine: EngineState,
  outLeft: Float32Array,
  outRight: Float32Array,
  offset: number,
  count: number,
  tap: MixTap | undefined,
): void {
  engine.mixLeft.fill(0, 0, count)
  engine.mixRight.fill(0, 0, count)
  const active = engine.voices.active
  let top = 0
  for (let voice = 0; voice < engine.voiceTop; voice++) {
    if (active[voice] === 0) continue
    renderVoice(engine, voice, engine.frame, count)
    if (active[voice] !== 0) top = voice + 1
  }
  engine.voiceTop = top
  mixDown(engine, outLeft, outRight, offset, count, tap)
  engine.frame += count
}

/** Takes what the page has written since the last call. "As soon as possible" becomes the frame about to be rendered. */
function drainRing(engine: EngineState): void {
  const { ring, ringHead } = engine.memory
  let read = ringHead[1]
  const written = Atomics.load(ringHead, 0)
  for (; read !== written; read = (read + 1) | 0) addEvent(engine, ring, (read & (RING_EVENTS - 1)) * WIDTH)
  ringHead[1] = read
}

function nextEventFrame(engine: EngineState): number {
  const scored = engine.scoreCursor < engine.score.length ? engine.score[engine.scoreCursor] : NEVER
  return engine.queueLength > 0 ? Math.min(scored, engine.queue[0]) : scored
}

function runDueEvents(engine: EngineState): void {
  while (engine.scoreCursor < engine.score.length && engine.score[engine.scoreCursor] <= engine.frame) {
    runEvent(engine, engine.score, engine.scoreCursor)
    engine.scoreCursor += WIDTH
  }
  let due = 0
  while (due < engine.queueLength && engine.queue[due * WIDTH] <= engine.frame) runEvent(engine, engine.queue, due++ * WIDTH)
  if (due === 0) return
  engine.queue.copyWithin(0, due * WIDTH, engine.queueLength * WIDTH)
  engine.queueLength -= due
}

/** What a strike has yet to strike along is let go with it, as soon as it sounds. */
function releaseAlong(engine: EngineState, struckSlot: number, key: number): void {
  const { queue, made } = engine
  for (let i = engine.queueLength - 1; i >= 0; i--) {
    const at = i * WIDTH
    if (queue[at + EventField.type] !== EventType.along || queue[at + EventField.struckSlot] !== struckSlot) continue
    if (queue[at] < engine.frame || (key !== 0 && queue[at + EventField.key] !== key)) continue
    made.fill(0)
    made[EventField.frame] = queue[at]
    made[EventField.type] = EventType.release
    made[EventField.padSlot] = struckSlot
    made[EventField.key] = queue[at + EventField.key]
    addEvent(engine, made, 0)
  }
}

function runEvent(engine: EngineState, events: Float64Array, at: number): void {
  const padSlot = events[at + EventField.padSlot]
  const key = events[at + EventField.key]
  switch (events[at + EventField.type]) {
    case EventType.strike:
      if (padSlot >= 0 && padSlot < MAX_PADS) beginStrike(engine, events, at)
      break
    case EventType.along:
      goOnAlong(engine, events, at)
      break
    case EventType.controller:
      moveController(engine, events[at + EventField.note], events[at + EventField.velocity])
      break
    case EventType.release:
      release(engine, padSlot, key)
      releaseAlong(engine, padSlot, key)
      break
    case EventType.stopAll:
      stopPad(engine, -1)
      break
    case EventType.groove:
      beginGroove(engine)
      break
    case EventType.stopPad:
      stopPad(engine, padSlot)
      break
  }
}
