import { lazy, Suspense } from 'react'

const Controller = lazy(async () => ({ default: (await import('./PracticeController')).PracticeController }))

/** Comes where it is shown: a page of its own has it as well, and the first screen stands without it. */
export const PracticeController = () => (
  <Suspense fallback={null}>
    <Controller />
  </Suspense>
)
