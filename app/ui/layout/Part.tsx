// Made of our Text: the elements have no parts under a name.
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { Text } from './Text'

/** A part of a screen, under its name. */
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
