import { lazy, Suspense } from 'react'
import type { ComponentProps } from 'react'

import type { BringPadSheet as WholeBring } from './pads/BringPadSheet'
import type { WalkSheet as WholeWalk } from './walk/WalkSheet'

/** Sheets of the board that come when they are opened: the pads stand without them. */
const Walk = lazy(async () => ({ default: (await import('./walk/WalkSheet')).WalkSheet }))
const Bring = lazy(async () => ({ default: (await import('./pads/BringPadSheet')).BringPadSheet }))

export const WalkSheet = (props: ComponentProps<typeof WholeWalk>) => (
  <Suspense fallback={null}>
    <Walk {...props} />
  </Suspense>
)

export const BringPadSheet = (props: ComponentProps<typeof WholeBring>) => (
  <Suspense fallback={null}>
    <Bring {...props} />
  </Suspense>
)
