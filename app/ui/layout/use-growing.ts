import { startTransition, useEffect, useState } from 'react'

/**
 * How many of many things are drawn: the first `step` at once, as many more in each moment after, so that a long list or a
 * large table never holds the page up. What was drawn stays.
 */
export function useGrowing(count: number, step: number): number {
  const [drawn, setDrawn] = useState(step)
  useEffect(() => {
    if (drawn >= count) return
    const timer = setTimeout(() => startTransition(() => setDrawn((before) => before + step)))
    return () => clearTimeout(timer)
  }, [drawn, count, step])
  return Math.min(drawn, count)
}
