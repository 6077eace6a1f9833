import type { ReactNode } from 'react'
import { View } from 'react-native'

import { Text } from '../../../ui/layout/Text'

/** A part of what shapes a pad, under its name. */
export function Part({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <View role="group" aria-label={name} style={{ gap: 12, paddingTop: 6 }}>
      <Text look="heading" style={{ fontSize: 17 }}>
        {name}
      </Text>
      {children}
    </View>
  )
}
