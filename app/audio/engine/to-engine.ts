import { EventField, StatusField, writeRing } from '@heliaster/core/engine'
import type { EngineMemory, Standing } from '@heliaster/core/engine'

import type { FromWorklet, ToWorklet } from '../../../core/engine/hosts/messages'
import { takeState } from './two-copies'

/** How the page reaches the engine: by a memory that both see, or by messages between two copies. */
export interface Link {
  readonly memory: EngineMemory
  readonly node: AudioWorkletNode
  readonly shared: boolean
}

export interface ToEngine {
  tell(message: ToWorklet, transfer?: Transferable[]): void
  /** Puts an event on its way; false where there is no room for it. */
  tellEvent(event: Float64Array): boolean
  /** The same, and what finds no room is counted. */
  send(event: number[]): void
  /** Events that found no room so far. */
  lost(): number
  /** How the engine stands, between two blocks. */
  askStanding(): Promise<Standing>
}

/** `wake` is called before each event: an engine that sleeps takes nothing, a changed kit neither. */
export function toEngine({ memory, node, shared }: Link, wake: () => void): ToEngine {
  const asking: ((standing: Standing) => void)[] = []
  let lost = 0
  node.port.onmessage = ({ data }: MessageEvent<FromWorklet>) => {
    if (data.type === 'state') takeState(memory, data)
    else asking.shift()?.(data.standing)
  }
  const tell = (message: ToWorklet, transfer: Transferable[] = []) => node.port.postMessage(message, transfer)
  const tellEvent = (event: Float64Array) => {
    wake()
    if (shared) return writeRing(memory, event)
    tell({ type: 'events', events: event })
    return true
  }
  return {
    tell,
    tellEvent,
    send(event) {
      if (!tellEvent(Float64Array.from(event))) lost++
    },
    lost: () => lost,
    askStanding: () =>
      new Promise((resolve) => {
        asking.push(resolve)
        tell({ type: 'stand' })
      }),
  }
}

/** What is said of an event, by its fields. */
export type EventNumbers = Partial<Record<Exclude<keyof typeof EventField, 'length'>, number | undefined>>

/** An event as the engine reads it, at once where no frame is said; what else is not said is 0, and the note none. */
export function eventOf({ status }: EngineMemory, type: number, said: EventNumbers = {}): number[] {
  const event = new Array<number>(EventField.length).fill(0)
  const all: EventNumbers = { frame: -1, note: -1, type, inputFrame: status[StatusField.frame] }
  for (const part of [all, said])
    for (const [field, value] of Object.entries(part)) if (value !== undefined) event[EventField[field as keyof EventNumbers]] = value
  return event
}
