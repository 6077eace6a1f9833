/** @jest-environment node */
import { createSleep, SILENT_MS } from './sleep'

function asleepAfter() {
  const context = { state: 'running', suspend: jest.fn(async () => void (context.state = 'suspended')), resume: jest.fn(async () => void (context.state = 'running')) } // prettier-ignore
  let silent = true
  let at = 0
  const sleep = createSleep(
    context,
    () => silent,
    () => at,
  )
  /** Pictures of the screen, four a second, for so long; says whether it sleeps at the end. */
  const pass = (ms: number) => {
    let rests = false
    for (const end = at + ms; at < end;) {
      at += 250
      rests = sleep.rests()
    }
    return rests
  }
  return { context, sleep, pass, sound: (sounds: boolean) => (silent = !sounds), later: (ms: number) => void (at += ms) }
}

test('a silent context sleeps after half a minute, and not before', () => {
  const { context, pass } = asleepAfter()
  expect(pass(SILENT_MS - 250)).toBe(false)
  expect(context.suspend).not.toHaveBeenCalled()
  expect(pass(250)).toBe(true)
  expect(pass(1000)).toBe(true)
  expect(context.suspend).toHaveBeenCalledTimes(1)
})

test('what sounds keeps it awake, and the half minute begins when it has ended', () => {
  const { pass, sound } = asleepAfter()
  sound(true)
  expect(pass(120_000)).toBe(false)
  sound(false)
  expect(pass(SILENT_MS - 250)).toBe(false)
  expect(pass(500)).toBe(true)
})

test('a strike wakes it at once, tells of it, and has its half minute', () => {
  const { context, sleep, pass } = asleepAfter()
  const woken = jest.fn()
  sleep.onWake(woken)
  pass(SILENT_MS)
  expect(sleep.isAsleep()).toBe(true)
  sleep.wake()
  expect(sleep.isAsleep()).toBe(false)
  expect(context.resume).toHaveBeenCalledTimes(1)
  expect(woken).toHaveBeenCalledTimes(1)
  expect(pass(SILENT_MS - 250)).toBe(false)
  sleep.wake() // awake already
  expect(context.resume).toHaveBeenCalledTimes(1)
  expect(pass(SILENT_MS - 250)).toBe(false)
})

test('held by a recording it stays awake in silence; let go twice it is let go once', () => {
  const { sleep, pass } = asleepAfter()
  const letGo = sleep.hold()
  const other = sleep.hold()
  expect(pass(120_000)).toBe(false)
  letGo()
  letGo()
  expect(pass(120_000)).toBe(false)
  other()
  expect(pass(SILENT_MS)).toBe(true)
})

test('a context that the browser has not let sound yet is not put to sleep', () => {
  const { context, pass } = asleepAfter()
  context.state = 'suspended'
  expect(pass(120_000)).toBe(false)
  expect(context.suspend).not.toHaveBeenCalled()
})

test('asking whether it sleeps puts nothing to sleep', () => {
  const { context, sleep, pass, later } = asleepAfter()
  pass(250)
  later(10 * SILENT_MS)
  expect(sleep.isAsleep()).toBe(false)
  expect(context.suspend).not.toHaveBeenCalled()
})
