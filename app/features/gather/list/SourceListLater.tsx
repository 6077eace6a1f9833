import { lazy, Suspense } from 'react'
import type { ComponentProps } from 'react'
import { View } from 'react-native'

import { Waiting } from '../../../ui/layout/Waiting'
import type { SourceList as Whole } from './SourceList'

/** Loads the list of sounds before it is asked for. */
export const listSoon = () => import('./SourceList')

const List = lazy(async () => ({ default: (await listSoon()).SourceList }))

/** The list of sounds, with all that comes in and goes out by it: two places show it, and the first screen stands without it. */
export const SourceList = (props: ComponentProps<typeof Whole>) => (
  <Suspense
    fallback={
      <View style={{ padding: 20 }}>
        <Waiting words="Reading the sounds" />
      </View>
    }
  >
    <List {...props} />
  </Suspense>
)
