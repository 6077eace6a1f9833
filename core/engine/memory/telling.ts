import type { BusId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { EventType } from '../program/codes'
import { EventField } from '../program/layout'
import { movedFaders, movedTillers } from './moved-faders'
import type { createPrograms } from './programs'

/** How the engine is told, and who else is where it reads a copy of memory. */
export interface LoaderEvents {
  /** An event for the engine, as soon as possible. Returns whether there was room for it. */
  send(event: Float64Array): boolean
  arenaWritten?(offset: number, length: number): void
  tablesChanged?(): void
  /** A table by which clips are read was made. */
  tableMade?(table: number, numbers: Float32Array): void
}

/** What the engine is told of a kit: programs that were put where it reads them, and faders that have moved. */
export function createTelling(
  events: LoaderEvents,
  programs: Pick<ReturnType<typeof createPrograms>, 'publish'>,
  busSlotOf: (busId: BusId | undefined) => number,
) {
  /** What was published and could not be told. */
  let untold: number | undefined

  function send(type: number, padSlot: number, note: number, value: number): boolean {
    const event = new Float64Array(EventField.length)
    event[EventField.frame] = -1
    event[EventField.type] = type
    event[EventField.padSlot] = padSlot
    event[EventField.note] = note
    event[EventField.velocity] = value
    return events.send(event)
  }

  /** Moves the faders and tillers that stand elsewhere than they did. */
  function moveFaders(before: Kit, kit: Kit): boolean {
    const faders = movedFaders(before, kit, busSlotOf).map(([slot, fader, value]) => send(EventType.fader, slot, fader, value))
    const tillers = movedTillers(before, kit).map(([control, value]) => send(EventType.controller, 0, control, value))
    return [...faders, ...tillers].every((sent) => sent)
  }

  /** Puts programs where the engine reads them, and tells it. Returns whether there was room to. */
  function publish(): boolean {
    const published = programs.publish()
    if (published !== undefined) {
      events.tablesChanged?.()
      untold = published
    }
    if (untold !== undefined && send(EventType.kit, 0, untold, 0)) untold = undefined
    return untold === undefined
  }

  return { moveFaders, publish }
}
