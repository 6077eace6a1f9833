import { lazy, Suspense } from 'react'
import type { ComponentProps } from 'react'

import type { MixerSheet as WholeMixer } from './mixer/MixerSheet'
import type { BringPadSheet as WholeBring } from './pads/BringPadSheet'
import type { WalkSheet as WholeWalk } from './walk/WalkSheet'

/** Sheets of the board that come when they are opened: the pads stand without them. */
const Mixer = lazy(async () => ({ default: (await import('./mixer/MixerSheet')).MixerSheet }))
const Walk = lazy(async () => ({ default: (await import('./walk/WalkSheet')).WalkSheet }))
const Bring = lazy(async () => ({ default: (await import('./pads/BringPadSheet')).BringPadSheet }))

export const MixerSheet = (props: ComponentProps<typeof WholeMixer>) => (
  <Suspense fallback={null}>
    <Mixer {...props} />
  </Suspense>
)

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
