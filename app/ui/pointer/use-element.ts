import { useEffectEvent, useLayoutEffect, useRef } from 'react'
import type { RefObject } from 'react'
import type { View } from 'react-native'

/**
 * A ref for a View whose DOM element `attach` is given once, before it is seen; what it returns takes everything off again. Its listeners ask
 * `now` for the newest handlers.
 */
export function useElement<Handlers>(
  handlers: Handlers,
  attach: (element: HTMLElement, now: () => Handlers) => () => void,
): RefObject<View | null> {
  const ref = useRef<View>(null)
  const now = useEffectEvent(() => handlers)
  const begin = useEffectEvent(attach)
  useLayoutEffect(() => {
    const element = ref.current as unknown as HTMLElement | null
    return element ? begin(element, () => now()) : undefined
  }, [])
  return ref
}
