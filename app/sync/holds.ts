/** Lets something wait while anybody holds it; `onFree` is called when the last one lets go. */
export function createHolds(onFree: () => void) {
  let count = 0
  return {
    isHeld: (): boolean => count > 0,
    /** Holds until the returned function is called, which does something once. */
    hold(): () => void {
      count++
      let isHolding = true
      return () => {
        if (!isHolding) return
        isHolding = false
        if (--count === 0) onFree()
      }
    },
  }
}
