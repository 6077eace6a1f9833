import { controlNumbers, EventField, EventType } from '../engine'
import type { PadId } from '../kit/ids'
import type { Kit } from '../kit/kit'
import type { PlayedEvent } from '../kit/performance'
import { MAX_PADS } from '../engine/program/layout'

/** One thing that was played and has no id yet, at a frame of the engine. */
export type Played = PlayedEvent extends infer Event ? (Event extends PlayedEvent ? Omit<Event, 'id'> : never) : never

/** What acted in an engine, by names: what was played, and from when on which kit stood. */
export type Act = Played | { readonly type: 'kit'; readonly frame: number; readonly kit: Kit }

const { keyPressure, tiller } = controlNumbers

/**
 * Rows of the engine's own log as they are played. Rows of slots that have no pad, and those that say how a kit stands, are
 * left to others: `kitAct` says of those what they are.
 */
export function actsOf(
  rows: Float64Array,
  padIdOf: (slot: number) => PadId | undefined,
  kitAct: (row: { readonly type: number; readonly frame: number; readonly note: number }) => Act | undefined,
): Act[] {
  const acts: Act[] = []
  for (let at = 0; at < rows.length; at += EventField.length) {
    const [frame, type, note] = [rows[at + EventField.frame], rows[at + EventField.type], rows[at + EventField.note]]
    const padId = padIdOf(rows[at + EventField.padSlot])
    const value = rows[at + EventField.velocity]
    const key = rows[at + EventField.key]
    switch (type) {
      case EventType.strike:
        if (padId) acts.push({ type: 'strike', frame, padId, velocity: value, key, ...(note >= 0 ? { note } : {}) })
        break
      case EventType.release:
        if (padId) acts.push({ type: 'letGo', frame, padId, key })
        break
      case EventType.stopAll:
        acts.push({ type: 'stop', frame })
        break
      case EventType.stopPad:
        if (padId) acts.push({ type: 'stop', frame, padId })
        break
      case EventType.controller: {
        const pressed = note >= keyPressure && note < tiller ? padIdOf(note - keyPressure) : undefined
        if (pressed) acts.push({ type: 'press', frame, padId: pressed, value })
        else if (note < keyPressure || note >= keyPressure + MAX_PADS) acts.push({ type: 'control', frame, control: note, value })
        break
      }
      case EventType.kit:
      case EventType.fader: {
        const act = kitAct({ type, frame, note })
        if (act) acts.push(act)
      }
    }
  }
  return acts
}
