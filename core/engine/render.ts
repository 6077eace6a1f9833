import { mixDown } from './limiter'
import type { MixTap } from './limiter'
import { RING_EVENTS } from './memory'
import { EventField, EventType, MAX_PADS, StatusField } from './program'
import { CHUNK_FRAMES, NEVER, QUEUE_EVENTS } from './state'
import type { EngineState } from './state'
import { release, stopPad } from './strike/stops'
import { beginGroove, strike } from './strike/strike'
import { renderVoice } from './voice'

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

/** Puts one event into the queue at its place in time. A full queue counts the loss where it can be seen. */
export function addEvent(engine: EngineState, from: Float64Array, at: number): void {
  if (engine.queueLength >= QUEUE_EVENTS) {
    engine.memory.status[StatusField.lostEvents]++
    return
  }
  const queue = engine.queue
  const frame = Math.max(from[at + EventField.frame], engine.frame)
  let place = engine.queueLength++
  for (; place > 0 && queue[(place - 1) * WIDTH] > frame; place--) queue.copyWithin(place * WIDTH, (place - 1) * WIDTH, place * WIDTH)
  for (let i = 0; i < WIDTH; i++) queue[place * WIDTH + i] = from[at + i]
  queue[place * WIDTH] = frame
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

function runEvent(engine: EngineState, events: Float64Array, at: number): void {
  const padSlot = events[at + EventField.padSlot]
  const key = events[at + EventField.key]
  switch (events[at + EventField.type]) {
    case EventType.strike:
      if (padSlot < 0 || padSlot >= MAX_PADS) break
      engine.now.padSlot = padSlot
      engine.now.velocity = events[at + EventField.velocity]
      engine.now.note = events[at + EventField.note]
      engine.now.inputFrame = events[at + EventField.inputFrame]
      engine.now.key = key
      strike(engine)
      break
    case EventType.release:
      release(engine, padSlot, key)
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
