import fc from 'fast-check'

import { createSteadyClock } from '.'

/** A device that renders in bursts, as a page sees it: how many frames there are at a moment of the page's clock. */
function aDevice({ rateHz = 48000, burst = 480, beganMs = 0, drift = 0 }) {
  const perMs = (rateHz / 1000) * (1 + drift)
  return (atMs: number) => Math.max(0, Math.floor(((atMs - beganMs) * perMs) / burst) + 1) * burst
}

const devices = fc.record({
  rateHz: fc.constantFrom(44100, 48000, 96000),
  burst: fc.constantFrom(128, 256, 384, 441, 480, 1024, 2048),
  beganMs: fc.double({ min: 0, max: 40, noNaN: true }),
  drift: fc.double({ min: -1e-4, max: 1e-4, noNaN: true }),
})
/** Moments at which a page draws pictures, never quite in step. */
const looks = fc.array(fc.double({ min: 4, max: 30, noNaN: true }), { minLength: 200, maxLength: 300 })

test('strikes of any moment sound equally long after the hand to a millisecond, and never before the engine is there', () => {
  fc.assert(
    fc.property(devices, looks, fc.array(fc.double({ min: 0, max: 1000, noNaN: true }), { minLength: 20 }), (device, gaps, moments) => {
      const frames = aDevice(device)
      const clock = createSteadyClock(device.rateHz)
      let now = 100
      for (const gap of gaps) clock.see((now += gap), frames(now))
      const late = moments.map((later) => {
        const atMs = now + later
        const frame = clock.frameOf(atMs)!
        expect(frame).toBeGreaterThanOrEqual(frames(atMs) - 1 - Math.abs(device.drift) * device.rateHz) // it is still to come
        return (frame * 1000) / device.rateHz - atMs
      })
      expect(Math.max(...late) - Math.min(...late)).toBeLessThanOrEqual(1)
    }),
  )
})

test('it knows the burst, and waits no longer than two of them', () => {
  const device = { rateHz: 48000, burst: 480 }
  const frames = aDevice(device)
  const clock = createSteadyClock(device.rateHz)
  expect([clock.frameOf(50), clock.burstFrames()]).toEqual([undefined, 0])
  for (let now = 0; now < 3000; now += 7.3) clock.see(now, frames(now))
  expect(clock.burstFrames()).toBeGreaterThan(440)
  expect(clock.burstFrames()).toBeLessThanOrEqual(481)
  expect(clock.frameOf(3000)! - frames(3000)).toBeLessThanOrEqual(2 * 480)
})

test('while nothing is rendered nothing is believed, and what was believed before is not', () => {
  const clock = createSteadyClock(48000)
  const frames = aDevice({ beganMs: 3000 }) // nothing is rendered before that
  for (let now = 0; now < 3000; now += 16) clock.see(now, frames(now))
  expect(clock.frameOf(3000)).toBeUndefined()
  for (let now = 3000; now < 5000; now += 16.1) clock.see(now, frames(now))
  expect(clock.burstFrames()).toBeLessThanOrEqual(481)
  expect(clock.frameOf(5000)! - frames(5000)).toBeLessThanOrEqual(2 * 480)
})

test('an engine that has slept begins anew, and one that lost time is followed within its memory', () => {
  const clock = createSteadyClock(48000)
  const frames = aDevice({})
  for (let now = 0; now < 2000; now += 9) clock.see(now, frames(now))
  clock.see(62000, frames(2000)) // a minute of sleep
  expect(clock.frameOf(62000)).toBeUndefined()
  for (let now = 62000; now < 70000; now += 9) clock.see(now, frames(now - 60000))
  expect(clock.frameOf(70000)! - frames(10000)).toBeLessThanOrEqual(2 * 480)
  for (let now = 70000; now < 76000; now += 9) clock.see(now, frames(now - 60050)) // 50 ms were lost
  expect(clock.frameOf(76000)! - frames(15950)).toBeLessThanOrEqual(2 * 480)
})
