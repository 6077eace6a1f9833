import { lazy, Suspense } from 'react'
import type { ComponentProps } from 'react'

import type { LikeSheet as WholeLike } from './LikeSheet'

const Like = lazy(async () => ({ default: (await import('./LikeSheet')).LikeSheet }))

/** Comes when it is opened: the first screen stands without it. */
export const LikeSheet = (props: ComponentProps<typeof WholeLike>) => (
  <Suspense fallback={null}>
    <Like {...props} />
  </Suspense>
)
