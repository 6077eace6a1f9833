import { EventField, StatusField } from './program/layout'
import type { EngineState } from './state'

export const QUEUE_EVENTS = 32768
const WIDTH = EventField.length

/** Events that are still to come, earliest first; of those of one frame the one that came first. */
export interface Queue {
  /** Rows of events; `heap` says which row comes next (a binary heap), `free` which rows are not in use. */
  readonly rows: Float64Array
  readonly order: Float64Array
  readonly heap: Int32Array
  length: number
  readonly free: Int32Array
  /** Room for a list of rows that are looked for. */
  readonly found: Int32Array
  freeCount: number
  given: number
}

export function createQueue(size: number): Queue {
  const free = new Int32Array(size)
  for (let i = 0; i < size; i++) free[i] = size - 1 - i
  return {
    rows: new Float64Array(size * WIDTH),
    order: new Float64Array(size),
    heap: new Int32Array(size),
    length: 0,
    free,
    freeCount: size,
    found: new Int32Array(size),
    given: 0,
  }
}

/** Puts one event into the queue at its place in time. A full queue counts the loss where it can be seen. */
export function addEvent(engine: EngineState, from: Float64Array, at: number): void {
  const { queue } = engine
  if (queue.length >= QUEUE_EVENTS) {
    engine.memory.status[StatusField.lostEvents]++
    return
  }
  const row = queue.free[--queue.freeCount]
  for (let i = 0; i < WIDTH; i++) queue.rows[row * WIDTH + i] = from[at + i]
  queue.rows[row * WIDTH + EventField.frame] = Math.max(from[at + EventField.frame], engine.frame)
  queue.order[row] = queue.given++
  queue.heap[queue.length] = row
  rise(queue, queue.length++)
}

/** The frame of the next event; `never` where none waits. */
export function nextQueued({ rows, heap, length }: Queue, never: number): number {
  return length === 0 ? never : rows[heap[0] * WIDTH + EventField.frame]
}

/** Takes the next event out of the queue into `to`. */
export function takeEvent(queue: Queue, to: Float64Array): void {
  const row = queue.heap[0]
  for (let i = 0; i < WIDTH; i++) to[i] = queue.rows[row * WIDTH + i]
  queue.free[queue.freeCount++] = row
  queue.heap[0] = queue.heap[--queue.length]
  sink(queue, 0)
}

/** Whether the row `a` comes before the row `b`. */
function isBefore({ rows, order }: Queue, a: number, b: number): boolean {
  const first = rows[a * WIDTH + EventField.frame]
  const second = rows[b * WIDTH + EventField.frame]
  return first < second || (first === second && order[a] < order[b])
}

function rise(queue: Queue, from: number): void {
  const { heap } = queue
  for (let place = from; place > 0;) {
    const above = (place - 1) >> 1
    if (!isBefore(queue, heap[place], heap[above])) return
    swap(heap, place, above)
    place = above
  }
}

function sink(queue: Queue, from: number): void {
  const { heap } = queue
  for (let place = from; ;) {
    let first = place
    for (let below = 2 * place + 1; below <= 2 * place + 2; below++)
      if (below < queue.length && isBefore(queue, heap[below], heap[first])) first = below
    if (first === place) return
    swap(heap, place, first)
    place = first
  }
}

function swap(heap: Int32Array, a: number, b: number): void {
  const held = heap[a]
  heap[a] = heap[b]
  heap[b] = held
}
