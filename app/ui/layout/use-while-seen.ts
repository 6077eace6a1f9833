import { useIsFocused } from 'expo-router'
import { useMemo } from 'react'
import type { StoreApi } from 'zustand'

const noEnd = () => undefined

/** A store as a screen follows it: while another one lies over it nothing is drawn anew, and what has changed is seen on coming back. */
export function useWhileSeen<State>(store: Pick<StoreApi<State>, 'getState' | 'getInitialState' | 'subscribe'>) {
  const isSeen = useIsFocused()
  return useMemo(() => (isSeen ? store : { ...store, subscribe: () => noEnd }), [store, isSeen])
}
