import { useWindowDimensions } from 'react-native'

/** Two panes from here on. */
export const WIDE_FROM = 900

export function useIsWide(): boolean {
  return useWindowDimensions().width >= WIDE_FROM
}
