/** @jest-environment node */
import { comePast } from './come-past'
import type { ComingOn } from './come-past'

/** An engine that comes on by `frames` with each answer. */
function anEngine(frames: number) {
  let frame = 1000
  let isAsleep = false
  const stands = jest.fn(async () => void (frame += frames))
  const engine = { frameNow: () => frame, stands, clock: { burstFrames: () => 479.5 }, sleep: { isAsleep: () => isAsleep } }
  return { engine: engine as unknown as ComingOn, stands, sleep: () => (isAsleep = true), frameNow: () => frame }
}

test('it waits until two bursts and what is under way are past', async () => {
  const { engine, frameNow } = anEngine(128)
  const end = await comePast(engine)
  expect(end).toBe(1000 + 2 * 480 + 256)
  expect(frameNow()).toBeGreaterThanOrEqual(end)
})

test('an engine that sleeps has nothing under way', async () => {
  const { engine, stands, sleep } = anEngine(128)
  sleep()
  await comePast(engine)
  expect(stands).not.toHaveBeenCalled()
})

test('an engine that never answers is waited for no longer than its patience', async () => {
  jest.useFakeTimers()
  const { engine } = anEngine(0)
  const waited = comePast({ ...engine, stands: () => new Promise(() => undefined) } as ComingOn)
  await jest.advanceTimersByTimeAsync(2001)
  await expect(waited).resolves.toBe(1000 + 960 + 256)
  jest.useRealTimers()
})
