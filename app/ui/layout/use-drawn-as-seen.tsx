// Renders a plain view: the elements have no list that grows as it is scrolled.
import { useEffect, useRef, useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

/** How far ahead of what is in sight more is drawn. */
const AHEAD_PX = 800

/**
 * How many of many rows of a page that scrolls are drawn: `step` of them, as many more whenever `end`, which stands behind the
 * last, comes near. All of them where a browser cannot tell what is in sight.
 */
export function useDrawnAsSeen(count: number, step: number): { readonly drawn: number; readonly end: ReactNode } {
  const [asked, setAsked] = useState(step)
  const mark = useRef<View>(null)
  const canTell = typeof IntersectionObserver === 'function'
  const drawn = canTell ? Math.min(asked, count) : count
  const isMore = drawn < count
  useEffect(() => {
    if (!isMore || !mark.current) return undefined
    const watch = new IntersectionObserver((seen) => seen.some(({ isIntersecting }) => isIntersecting) && setAsked(drawn + step), { rootMargin: `${AHEAD_PX}px` })
    watch.observe(mark.current as unknown as Element)
    return () => watch.disconnect()
  }, [isMore, drawn, step])
  return { drawn, end: isMore && <View ref={mark} style={{ height: 1 }} /> }
} // prettier-ignore
