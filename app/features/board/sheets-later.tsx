import { lazy, Suspense } from 'react'
import type { ComponentProps } from 'react'

import type { BringPadSheet as WholeBring } from './pads/BringPadSheet'
import type { TiesPanel as WholeTies } from './ties/TiesPanel'
import type { WalkSheet as WholeWalk } from './walk/WalkSheet'

/** What opens over the board or beside it comes when it is opened: the pads stand without it. */
const Walk = lazy(async () => ({ default: (await import('./walk/WalkSheet')).WalkSheet }))
const Ties = lazy(async () => ({ default: (await import('./ties/TiesPanel')).TiesPanel }))
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

export const TiesPanel = (props: ComponentProps<typeof WholeTies>) => (
  <Suspense fallback={null}>
    <Ties {...props} />
  </Suspense>
)
