import { useEffect, useRef } from 'react'
import type { RefObject } from 'react'

/** The newest value for what is called from elsewhere than an effect, and must not change with it. */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value)
  useEffect(() => {
    latest.current = value
  })
  return latest
}
