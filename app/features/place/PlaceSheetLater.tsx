import { lazy, Suspense } from 'react'
import type { ComponentProps } from 'react'

import type { PlaceSheet as Whole } from './PlaceSheet'

/** What reads names, listens and places is large, and comes when files are put on pads. */
const Sheet = lazy(async () => ({ default: (await import('./PlaceSheet')).PlaceSheet }))

export function PlaceSheet(props: ComponentProps<typeof Whole>) {
  return (
    <Suspense fallback={null}>
      <Sheet {...props} />
    </Suspense>
  )
}
