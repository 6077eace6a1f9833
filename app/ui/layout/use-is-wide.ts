import { useWindowDimensions } from 'react-native'

/** Two panes from here on. */
export const WIDE_FROM = 900

export function useIsWide(): boolean {
  return useWindowDimensions().width >= WIDE_FROM
}

/** A window lower than this, a phone on its side or a page made twice as large, scrolls what does not fit. */
export const LOW_PX = 600

export function useIsLow(): boolean {
  return useWindowDimensions().height < LOW_PX
}
