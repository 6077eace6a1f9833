import { useEffect, useState } from 'react'

/** The time in milliseconds since 1970, looked at anew so often while it is shown. */
export function useNow(everyMs: number, isShown = true): number {
  const [nowMs, setNowMs] = useState(() => Date.now())
  useEffect(() => {
    if (!isShown) return undefined
    const look = () => setNowMs(Date.now())
    look()
    const timer = setInterval(look, everyMs)
    return () => clearInterval(timer)
  }, [everyMs, isShown])
  return nowMs
}
