import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons'
import type { ComponentProps } from 'react'

export type IconName = ComponentProps<typeof MaterialCommunityIcons>['name']

interface Props {
  readonly name: IconName
  readonly size: number
  readonly color: string
}

export function Icon(props: Props) {
  return <MaterialCommunityIcons {...props} aria-hidden />
}
