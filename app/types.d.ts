declare module 'react-native-web' {
  import type { ReactElement } from 'react'
  export function unstable_createElement(type: string, props: Record<string, unknown>): ReactElement
}
declare module 'react-native-vector-icons/Icon' {
  export interface IconProps {
    name: string
    size?: number
    color?: string
  }
  export interface IconButtonProps extends IconProps {
    onPress?: () => void
  }
}
