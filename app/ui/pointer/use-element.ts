import { useEffect, useRef } from 'react'
import type { RefObject } from 'react'
import type { View } from 'react-native'

/** The newest value for handlers that are attached once. */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value)
  useEffect(() => {
    latest.current = value
  })
  return latest
}

/** A ref for a View whose DOM element `attach` is given once; what it returns takes everything off again. */
export function useElement(attach: (element: HTMLElement) => () => void): RefObject<View | null> {
  const ref = useRef<View>(null)
  const latest = useLatest(attach)
  useEffect(() => {
    const element = ref.current as unknown as HTMLElement | null
    return element ? latest.current(element) : undefined
  }, [latest])
  return ref
}
