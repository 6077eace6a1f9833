import fc from 'fast-check'

import { bendOfBits, readMessage, writeMessage } from '.'
import type { HandMessage } from '.'

const seven = fc.integer({ min: 0, max: 127 })
const channel = fc.integer({ min: 1, max: 16 })
const messages: fc.Arbitrary<HandMessage> = fc.oneof(
  fc.record({ type: fc.constant('noteOn' as const), channel, note: seven, velocity: fc.integer({ min: 1, max: 127 }) }),
  fc.record({ type: fc.constant('noteOff' as const), channel, note: seven, velocity: seven }),
  fc.record({ type: fc.constant('keyPressure' as const), channel, note: seven, pressure: seven }),
  fc.record({ type: fc.constant('controller' as const), channel, number: fc.integer({ min: 0, max: 119 }), value: seven }),
  fc.record({ type: fc.constant('pressure' as const), channel, pressure: seven }),
  fc.record({ type: fc.constant('bend' as const), channel, bend: fc.tuple(seven, seven).map(([low, high]) => bendOfBits(low, high)) }),
  fc.record({ type: fc.constant('allOff' as const), channel }),
)

test('every message that is written is read as itself', () => {
  fc.assert(fc.property(messages, (message) => expect(readMessage(Uint8Array.from(writeMessage(message)))).toEqual(message)))
})

test('any bytes are read without a fault, and as numbers within their bounds', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 6 }), (bytes) => {
      const message = readMessage(bytes)
      for (const [name, value] of Object.entries(message ?? {}))
        if (name === 'bend') expect(Math.abs(value as number)).toBeLessThanOrEqual(1)
        else if (name !== 'type') expect(value).toBeLessThanOrEqual(127)
    }),
  )
})

test('a note on without strength ends; modes that end all notes end all; the rest of the standard plays nothing', () => {
  const read = (...bytes: number[]) => readMessage(Uint8Array.from(bytes))
  expect(read(0x99, 38, 0)).toEqual({ type: 'noteOff', channel: 10, note: 38, velocity: 0 })
  for (const mode of [120, 123, 124, 127]) expect(read(0xb0, mode, 0)).toEqual({ type: 'allOff', channel: 1 })
  expect([read(0xb0, 121, 0), read(0xb0, 122, 0), read(0xc0, 4), read(0xf8), read(0xf0, 1, 2), read(0x90, 36), read(36, 100), read()]).toEqual(new Array(8).fill(undefined)) // prettier-ignore
  expect([bendOfBits(0, 0), bendOfBits(0, 64), bendOfBits(127, 127)]).toEqual([-1, 0, 1])
})
