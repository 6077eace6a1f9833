import fc from 'fast-check'

import { chirp, loopDelay } from '.'

/** A room: the sound comes later, weaker, upside down or not, with what the walls give back and a noise of its own. */
function recordingOf(rateHz: number, sent: readonly number[], room: { delay: number; gain: number; walls: number; noise: number; seed: number }) {
  const recorded = new Float32Array(Math.round(3.6 * rateHz))
  const shape = chirp(rateHz)
  let state = room.seed
  const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 31 - 1
  for (let i = 0; i < recorded.length; i++) recorded[i] = room.noise * random()
  const add = (at: number, gain: number) => shape.forEach((x, i) => (recorded[at + i] = (recorded[at + i] ?? 0) + gain * x))
  for (const from of sent) {
    add(from + room.delay, room.gain)
    for (let echo = 1; echo <= 6; echo++) add(from + room.delay + Math.round((0.004 * echo + 0.002) * rateHz), room.gain * room.walls * 0.7 ** echo)
  }
  return recorded
} // prettier-ignore

test('in any room the delay is found to a tenth of a millisecond, through noise and echoes', () => {
  const rooms = fc.record({
    rateHz: fc.constantFrom(44100, 48000, 96000),
    delayMs: fc.double({ min: 1, max: 500, noNaN: true }),
    gain: fc.constantFrom(0.9, 0.3, 0.02, -0.2),
    walls: fc.constantFrom(0, 0.5, 1),
    noise: fc.constantFrom(0, 0.001, 0.3),
    seed: fc.integer({ min: 1, max: 1e9 }),
  })
  fc.assert(
    fc.property(rooms, ({ rateHz, delayMs, gain, walls, noise, seed }) => {
      const sent = Array.from({ length: 5 }, (_, i) => Math.round((0.1 + 0.6 * i) * rateHz))
      const delay = Math.round((delayMs * rateHz) / 1000)
      const found = loopDelay(recordingOf(rateHz, sent, { delay, gain, walls, noise: noise * Math.abs(gain), seed }), rateHz, sent)
      if (typeof found === 'string') throw new Error(found)
      expect(Math.abs(found.seconds * 1000 - delayMs)).toBeLessThan(0.1)
      expect(found.spreadSeconds * 1000).toBeLessThan(0.5)
    }),
    { numRuns: 30 },
  )
}, 60_000)

test('where no chirp came, nothing is made up', () => {
  const sent = [4800, 33600, 62400]
  const silent = new Float32Array(100_000)
  const noisy = recordingOf(48000, [], { delay: 0, gain: 0, walls: 0, noise: 0.5, seed: 9 })
  for (const recorded of [silent, noisy]) expect(loopDelay(recorded, 48000, sent)).toMatch(/did not hear the chirps/)
})
