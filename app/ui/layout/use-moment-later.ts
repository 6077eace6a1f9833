import { startTransition, useEffect, useState } from 'react'

/**
 * True from a moment after something is ready, once and for all: what stands first is drawn by then. React's deferred value does
 * the same only for what is urgent: within what is deferred already it waits no second time.
 */
export function useMomentLater(isReady = true): boolean {
  const [isThere, setThere] = useState(false)
  useEffect(() => {
    if (isThere || !isReady) return undefined
    const timer = setTimeout(() => startTransition(() => setThere(true)))
    return () => clearTimeout(timer)
  }, [isThere, isReady])
  return isThere
}
