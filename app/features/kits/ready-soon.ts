import { hearLater } from './hear-later'
import { fetchRooms } from './rooms-later'

/** So long the first screen has the device for itself. */
const AFTER_MS = 1500

/**
 * Makes the engine ready, and the places that a kit opens in, once the first screen has stood for a while and the device has nothing
 * else to do, so that the first strike on the kit that is opened finds them there. Returns the way to let it be.
 */
export function readySoon(): () => void {
  let isWanted = true
  const begin = () => {
    if (!isWanted) return
    fetchRooms()
    void hearLater().then(({ startSound }) => (isWanted ? startSound() : undefined))
  }
  const timer = setTimeout(() => (typeof requestIdleCallback === 'function' ? void requestIdleCallback(begin) : begin()), AFTER_MS)
  return () => {
    isWanted = false
    clearTimeout(timer)
  }
}
