/** @jest-environment node */
import { clearTrays, onTray, putTrayBack, takeTray } from './trays'

beforeEach(() => {
  clearTrays()
  Object.assign(globalThis, { crossOriginIsolated: true })
})
afterAll(() => Reflect.deleteProperty(globalThis, 'crossOriginIsolated'))

test('a tray that was put back serves the next file that fits on it and is not far smaller', () => {
  const tray = takeTray(800_000)!
  expect(tray.byteLength).toBeGreaterThanOrEqual(800_000)
  expect(takeTray(800_000)).not.toBe(tray) // it is in use
  putTrayBack(tray)
  expect(takeTray(tray.byteLength + 1)).not.toBe(tray)
  expect(takeTray(5)).not.toBe(tray)
  expect(takeTray(tray.byteLength)).toBe(tray)
})

test('channels lie one behind the other, and what is written by one is read by the other', () => {
  const tray = takeTray(80)!
  const [left, right] = onTray(tray, 2, 10)
  left.fill(0.25)
  right.fill(0.5)
  expect([...new Float32Array(tray, 36, 2)]).toEqual([0.25, 0.5])
  expect(onTray(tray, 2, 10)[1][9]).toBe(0.5)
})

test('no more than a little lies about, and nothing once all has come', () => {
  const trays = Array.from({ length: 6 }, () => takeTray(5e6)!)
  for (const tray of trays) putTrayBack(tray)
  const again = Array.from({ length: 6 }, () => takeTray(5e6)!)
  expect(again.filter((tray) => trays.includes(tray))).toHaveLength(3)
  for (const tray of again) putTrayBack(tray)
  clearTrays()
  expect(again).not.toContain(takeTray(5e6))
})

test('where page and worker share no memory, or there is nothing to lay, there are none', () => {
  expect(takeTray(0)).toBeUndefined()
  Object.assign(globalThis, { crossOriginIsolated: false })
  expect(takeTray(1000)).toBeUndefined()
})
