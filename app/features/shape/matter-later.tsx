import { lazy, Suspense } from 'react'
import type { ComponentProps } from 'react'

import type { MatterPart as Whole } from './matter/MatterPart'

const Matter = lazy(async () => ({ default: (await import('./matter/MatterPart')).MatterPart }))

/** A workbench of its own, which comes when it is gone to: the chart and the recipe stand without it. */
export const MatterPart = (props: ComponentProps<typeof Whole>) => (
  <Suspense fallback={null}>
    <Matter {...props} />
  </Suspense>
)
