/** @jest-environment node */
import { EventField, EventType } from '@heliaster/core/engine'
import type { Kit } from '@heliaster/core/kit'

import { createKitActs } from './kit-acts'

const kit = (name: string) => ({ name }) as Kit
function event(type: number, note = 0): Float64Array {
  const told = new Float64Array(EventField.length)
  told[EventField.type] = type
  told[EventField.note] = note
  return told
}

test('a state of the memory is known by its number, whichever of them is heard of first, and only once', () => {
  const acts = createKitActs()
  const [low, high] = [kit('low'), kit('high')]
  acts.stands = low
  acts.sent(event(EventType.kit, 7))
  acts.stands = high
  acts.sent(event(EventType.kit, 8))
  const of = (note: number) => acts.actOf({ type: EventType.kit, frame: 480, note })
  expect(of(7)).toEqual({ type: 'kit', frame: 480, kit: low })
  expect(of(8)).toEqual({ type: 'kit', frame: 480, kit: high })
  expect(of(7)).toBeUndefined() // older than what was heard of since
  expect(of(8)).toEqual({ type: 'kit', frame: 480, kit: high })
})

test('faders act in the order in which they were told, beside states, and leave those alone', () => {
  const acts = createKitActs()
  const kits = ['one', 'two', 'three'].map(kit)
  acts.stands = kits[0]
  acts.sent(event(EventType.fader))
  acts.stands = kits[1]
  acts.sent(event(EventType.kit, 1))
  acts.stands = kits[2]
  acts.sent(event(EventType.fader))
  const fader = () => acts.actOf({ type: EventType.fader, frame: 1, note: 99 })
  expect([fader(), fader(), fader()].map((act) => act?.type === 'kit' && act.kit)).toEqual([kits[0], kits[2], false])
  expect(acts.actOf({ type: EventType.kit, frame: 1, note: 1 })).toMatchObject({ kit: kits[1] })
})

test('before a kit stands, and for what is neither, nothing is kept', () => {
  const acts = createKitActs()
  acts.sent(event(EventType.kit, 1))
  acts.stands = kit('one')
  acts.sent(event(EventType.strike, 2))
  expect(acts.actOf({ type: EventType.kit, frame: 0, note: 1 })).toBeUndefined()
  expect(acts.actOf({ type: EventType.kit, frame: 0, note: 2 })).toBeUndefined()
  expect(acts.actOf({ type: EventType.fader, frame: 0, note: 0 })).toBeUndefined()
})
