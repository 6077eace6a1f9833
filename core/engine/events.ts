import { EventField, StatusField } from './program/layout'
import { QUEUE_EVENTS } from './state'
import type { EngineState } from './state'

const WIDTH = EventField.length

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
