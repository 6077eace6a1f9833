import { EventField, EventType } from '@heliaster/core/engine'
import type { Kit } from '@heliaster/core/kit'
import type { Act } from '@heliaster/core/performance'

/** Which kit stood when: a state of the engine's memory is known by its number, faders act in the order in which they are told. */
export function createKitActs() {
  const states = new Map<number, Kit>()
  const faders: Kit[] = []
  return {
    /** The kit that is being told of. */
    stands: undefined as Kit | undefined,
    sent(event: Float64Array): void {
      if (!this.stands) return
      if (event[EventField.type] === EventType.kit) states.set(event[EventField.note], this.stands)
      else if (event[EventField.type] === EventType.fader) faders.push(this.stands)
    },
    actOf({ type, frame, note }: { readonly type: number; readonly frame: number; readonly note: number }): Act | undefined {
      const kit = type === EventType.kit ? states.get(note) : faders.shift()
      for (const older of states.keys()) if (type === EventType.kit && older < note) states.delete(older)
      return kit && { type: 'kit', frame, kit }
    },
  }
}
