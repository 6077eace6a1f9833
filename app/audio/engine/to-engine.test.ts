import { createMemory, EventField, EventType, StatusField } from '@heliaster/core/engine'
import type { Standing } from '@heliaster/core/engine'

import { eventOf, toEngine } from './to-engine'

/** An engine's end that keeps what it is told. */
function aNode() {
  const told: { readonly type: string; readonly events?: Float64Array }[] = []
  const port = { onmessage: undefined as ((message: { data: unknown }) => void) | undefined, postMessage: (message: (typeof told)[number]) => told.push(message) } // prettier-ignore
  return { told, port, node: { port } as unknown as AudioWorkletNode }
}

test('an event says what it is without where nothing is said of it', () => {
  const memory = createMemory(false)
  memory.status[StatusField.frame] = 4800
  const event = eventOf(memory, EventType.strike, { padSlot: 3, velocity: 0.5, frame: undefined, key: 7 })
  expect(event).toHaveLength(EventField.length)
  expect(event[EventField.frame]).toBe(-1)
  expect(event[EventField.note]).toBe(-1)
  expect(event[EventField.inputFrame]).toBe(4800)
  expect([event[EventField.type], event[EventField.padSlot], event[EventField.velocity], event[EventField.key]]).toEqual([EventType.strike, 3, 0.5, 7])
  expect(eventOf(memory, EventType.groove, { frame: 960 })[EventField.frame]).toBe(960)
}) // prettier-ignore

test('between two copies events go as messages, and each wakes the engine first', () => {
  const { told, node } = aNode()
  const memory = createMemory(false)
  let woken = 0
  const engine = toEngine({ memory, node, shared: false }, () => void woken++)
  engine.send(eventOf(memory, EventType.stopAll))
  expect(woken).toBe(1)
  expect(told.map(({ type }) => type)).toEqual(['events'])
  expect(told[0]!.events![EventField.type]).toBe(EventType.stopAll)
  expect(engine.lost()).toBe(0)
})

test('in shared memory what finds no room is counted', () => {
  const { told, node } = aNode()
  const memory = createMemory(false)
  const engine = toEngine({ memory, node, shared: true }, () => undefined)
  const event = eventOf(memory, EventType.strike, { padSlot: 1, velocity: 1 })
  let sent = 0
  while (engine.lost() === 0 && sent < 1e6) {
    engine.send(event)
    sent++
  }
  expect(sent).toBeGreaterThan(100)
  engine.send(event)
  expect(engine.lost()).toBe(2)
  expect(engine.tellEvent(Float64Array.from(event))).toBe(false)
  expect(told).toEqual([])
})

test('who asks how the engine stands is answered in turn', async () => {
  const { told, port, node } = aNode()
  const engine = toEngine({ memory: createMemory(false), node, shared: false }, () => undefined)
  const answers = Promise.all([engine.askStanding(), engine.askStanding()])
  expect(told.map(({ type }) => type)).toEqual(['stand', 'stand'])
  const standings = [{}, {}] as unknown as Standing[]
  for (const standing of standings) port.onmessage!({ data: { type: 'stood', standing } })
  const [first, second] = await answers
  expect(first).toBe(standings[0])
  expect(second).toBe(standings[1])
})
